import { minify } from 'oxc-minify'
import type { Plugin } from 'vite'

/**
 * A late part as the minifier writes it. Vite finds what comes with a part – its styles, the parts that it needs – by a name in plain
 * quotes alone, and left its list empty.
 */
const LATE = /\bimport\(`([^`$\\]*)`\)/g

/** Minifies what the browser is served, workers included, off the main thread: Vite’s own way takes a minute longer. */
export const minified = (): Plugin => ({
  name: 'minified',
  enforce: 'post',
  apply: 'build',
  applyToEnvironment: (environment) => environment.name === 'client',
  renderChunk: {
    // After Vite has lowered the code to what browsers know.
    order: 'post',
    async handler(code, { fileName }) {
      const { code: small, errors } = await minify(fileName, code, { module: true })
      if (errors[0]) throw new Error(`${fileName}: ${errors[0].message}`)
      return { code: small.replace(LATE, 'import("$1")'), map: null }
    },
  },
})
