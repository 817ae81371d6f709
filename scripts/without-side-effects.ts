import type { Plugin } from 'vite'

/** Every module of the core, and Nuxt’s composables, whose package does not say so itself. */
const PURE = [/[\\/]core[\\/].*\.ts$/, /[\\/]node_modules[\\/]nuxt[\\/]dist[\\/]app[\\/]composables[\\/].*\.js$/]

/**
 * Modules that do nothing by being imported. Told so, the bundler takes from their index files only what is used, and puts it where
 * it is used: what a place alone needs comes with that place and not with the first load, what nobody needs not at all.
 */
export function withoutSideEffects(): Plugin {
  return {
    name: 'without-side-effects',
    applyToEnvironment: (environment) => environment.name === 'client',
    transform: (code, id) =>
      PURE.some((each) => each.test(id.split('?')[0] ?? '')) ? { code, map: null, moduleSideEffects: false } : null,
  }
}
