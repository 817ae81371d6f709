import type { Plugin } from 'vite'

/**
 * No module of the core does anything by being imported. Told so, the bundler takes from the core's index files only what is used,
 * and puts it where it is used: what a place alone needs comes with that place and not with the first load.
 */
export function coreWithoutSideEffects(): Plugin {
  return {
    name: 'core-without-side-effects',
    applyToEnvironment: (environment) => environment.name === 'client',
    transform: (code, id) =>
      /[\\/]core[\\/].*\.ts$/.test(id) && !id.includes('node_modules')
        ? { code, map: null, moduleSideEffects: false }
        : null,
  }
}
