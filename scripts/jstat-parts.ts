import { readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import type { Plugin } from 'vite'

/** The package's own parts that hold what is used of it, in the order in which its own build joins them. */
const PARTS = ['_header', 'core', 'vector', 'special', 'linearalgebra', '_footer']

/** jStat in the browser from its parts, as its own build makes it, without distributions, tests, models and regressions. */
export function jstatParts(): Plugin {
  const folder = join(dirname(createRequire(import.meta.url).resolve('jstat/package.json')), 'src')
  return {
    name: 'jstat-parts',
    enforce: 'pre',
    applyToEnvironment: (environment) => environment.name === 'client',
    resolveId: (id) => (id === 'jstat' ? '\0jstat-parts' : null),
    async load(id) {
      if (id !== '\0jstat-parts') return null
      const parts = await Promise.all(PARTS.map((part) => readFile(join(folder, `${part}.js`), 'utf8')))
      // The header begins a wrapper for any kind of module; here it is an expression.
      return `const exports = {};\nconst module = { exports };\n${parts.join('\n')};\nexport default module.exports.jStat ?? module.exports`
    },
  }
}
