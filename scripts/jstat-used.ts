import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import type { Plugin } from 'vite'
import { parseAst } from 'vite'

/** The package's own parts that hold what is used of it, in the order in which its own build joins them. */
const PARTS = ['_header', 'core', 'vector', 'special', 'linearalgebra', '_footer']

/** What is called of it. */
const USED = ['QR', 'inv', 'erf', 'erfcinv', 'ibetainv']

/**
 * jStat in the browser from its parts, as its own build makes it, and of those only what is used: its functions are set on one
 * object, where no bundler can tell which of them are needed.
 */
export const jstatUsed = (): Plugin => ({
  name: 'jstat-used',
  enforce: 'pre',
  applyToEnvironment: (environment) => environment.name === 'client',
  resolveId: (id) => (id === 'jstat' ? '\0jstat-used' : null),
  load: (id) => (id === '\0jstat-used' ? jstatModule() : null),
})

/** The module as its text. */
export function jstatModule(): string {
  const folder = join(dirname(createRequire(import.meta.url).resolve('jstat/package.json')), 'src')
  const parts = PARTS.map((part) => readFileSync(join(folder, `${part}.js`), 'utf8')).join('\n')
  // The header begins a wrapper for any kind of module; here it is an expression.
  return `const exports = {};\nconst module = { exports };\n${only(USED, parts)};\nexport default module.exports.jStat ?? module.exports`
}

/** A function that is set on the object: where its text begins, and where the next thing does. */
interface Method {
  name: string
  from: number
  to: number
}

/** The code without the functions that neither those wanted nor what runs at once calls. */
function only(wanted: readonly string[], code: string): string {
  const methods = methodsIn(code)
  const kept = new Set([...wanted, ...called(without(code, methods))])
  for (const name of kept)
    for (const { from, to } of methods.filter((each) => each.name === name))
      for (const next of called(code.slice(from, to))) kept.add(next)
  return without(
    code,
    methods.filter(({ name }) => !kept.has(name)),
  )
}

const called = (code: string) => [...code.matchAll(/\bjStat\.(\w+)/g)].map(([, name]) => name as string)

const without = (code: string, methods: readonly Method[]) =>
  [...methods]
    .sort((a, b) => b.from - a.from)
    .reduce((rest, { from, to }) => rest.slice(0, from) + rest.slice(to), code)

/** `jStat.name = function …`, and what an object brings that `jStat.extend` is given. */
function methodsIn(code: string): Method[] {
  const found: Method[] = []
  const visit = (node: unknown): void => {
    if (Array.isArray(node)) return node.forEach(visit)
    if (!isNode(node)) return
    const set = node.type === 'ExpressionStatement' && isNode(node.expression) ? node.expression : null
    const name = set?.type === 'AssignmentExpression' && isFunction(set.right) ? onObject(set.left) : null
    if (name && name !== 'extend') found.push({ name, from: node.start, to: node.end })
    else if (node.type === 'CallExpression' && onObject(node.callee) === 'extend') found.push(...brought(node))
    else Object.values(node).forEach(visit)
  }
  visit(parseAst(code))
  return found
}

function brought(call: Node): Method[] {
  const [object] = call.arguments as Node[]
  const properties = (object?.properties ?? []) as (Node & { key: { name: string } })[]
  return properties.flatMap(({ key, value, start, end }, i) =>
    isFunction(value) ? [{ name: key.name, from: start, to: properties[i + 1]?.start ?? end }] : [],
  )
}

interface Node {
  type: string
  start: number
  end: number
  [key: string]: unknown
}
const isNode = (value: unknown): value is Node => typeof value === 'object' && value !== null && 'type' in value
const isFunction = (value: unknown) => isNode(value) && value.type === 'FunctionExpression'
const isNamed = (value: unknown): value is Node & { name: string } => isNode(value) && value.type === 'Identifier'

/** The name of a member of jStat. */
const onObject = (value: unknown): string | null =>
  isNode(value) &&
  value.type === 'MemberExpression' &&
  isNamed(value.object) &&
  value.object.name === 'jStat' &&
  isNamed(value.property)
    ? value.property.name
    : null
