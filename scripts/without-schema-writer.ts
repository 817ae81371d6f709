import type { Plugin } from 'vite'

const WRITER = /[\\/]zod[\\/]v4[\\/]core[\\/](to-json-schema|json-schema-processors)\.js$/

/**
 * In the browser nothing writes a JSON Schema – that is the server's door – but Zod hangs its writer on every schema. With
 * its exports emptied there, the first load is some 10 kB smaller; calling one would be a programmer's error and throws.
 */
export function withoutSchemaWriter(): Plugin {
  return {
    name: 'without-schema-writer',
    applyToEnvironment: (environment) => environment.name === 'client',
    transform(code, id) {
      if (!WRITER.test(id.split('?')[0] ?? '')) return null
      const names = [...code.matchAll(/^export (?:const|function) (\w+)/gm)].map((match) => match[1])
      const lines = names.map((name) =>
        name?.startsWith('create')
          ? `export const ${name} = () => () => { throw new Error('no JSON Schema is written in the browser') }`
          : `export const ${name} = () => { throw new Error('no JSON Schema is written in the browser') }`,
      )
      return { code: lines.join('\n'), map: null }
    },
  }
}
