// The schemas of what is answered over HTTP, made from the types of server/contract/answer-types.ts. With --check nothing is written.
import { readFileSync, writeFileSync } from 'node:fs'
import prettier from 'prettier'
import ts from 'typescript'
import { root } from './steps.mjs'

const TYPES = `${root}server/contract/answer-types.ts`
const FILE = `${root}server/contract/answers.json`

const program = ts.createProgram([TYPES], {
  target: ts.ScriptTarget.ESNext,
  module: ts.ModuleKind.ESNext,
  moduleResolution: ts.ModuleResolutionKind.Bundler,
  strict: true,
  exactOptionalPropertyTypes: true,
  skipLibCheck: true,
  paths: { '#core/*': [`${root}core/*`] },
})
const checker = program.getTypeChecker()

const source = program.getSourceFile(TYPES)
/** The properties of one of the interfaces there. */
const listed = (name) => {
  const found = source.statements.find((each) => ts.isInterfaceDeclaration(each) && each.name.text === name)
  return checker.getPropertiesOfType(checker.getTypeAtLocation(found))
}
const ofTheFile = new Map(listed('OfTheFile').map((each) => [checker.getTypeOfSymbol(each), described(each)]))

const definitions = {}
const names = new Map()

/** A name of its own for what is named in the code, so that it stands once. */
function named(type, make) {
  const symbol = type.aliasSymbol ?? type.symbol
  const name = symbol?.getName()
  if (!name || name.startsWith('__') || type.aliasTypeArguments?.length || type.typeArguments?.length) return make()
  const known = names.get(type)
  if (known) return { $ref: `#/$defs/${known}` }
  const own = name in definitions ? `${name}${Object.keys(definitions).length}` : name
  names.set(type, own)
  definitions[own] = {}
  definitions[own] = { ...described(symbol), ...make() }
  return { $ref: `#/$defs/${own}` }
}

function described(symbol) {
  const text = ts.displayPartsToString(symbol?.getDocumentationComment(checker)).replace(/\s+/g, ' ').trim()
  return text ? { description: text } : {}
}

function schemaOf(type) {
  const file = ofTheFile.get(type)
  if (file) return { type: 'object', ...file }
  if (type.flags & ts.TypeFlags.Null) return { type: 'null' }
  if (type.isStringLiteral() || type.isNumberLiteral()) return { const: type.value }
  if (type.flags & ts.TypeFlags.BooleanLiteral) return { const: checker.typeToString(type) === 'true' }
  if (type.flags & ts.TypeFlags.StringLike) return { type: 'string' }
  if (type.flags & ts.TypeFlags.NumberLike) return { type: 'number' }
  if (type.flags & ts.TypeFlags.Boolean) return { type: 'boolean' }
  if (type.isUnion())
    return type.types.every((each) => each.flags & ts.TypeFlags.BooleanLiteral) ? { type: 'boolean' } : unionOf(type)
  const unit = unitOf(type)
  if (unit) return { type: 'number', description: unit }
  if (checker.isArrayLikeType(type)) return { type: 'array', items: schemaOf(checker.getTypeArguments(type)[0]) }
  return named(type, () => objectOf(type))
}

/** A number that knows its unit. */
function unitOf(type) {
  if (!type.isIntersection() || !type.types.some((each) => each.flags & ts.TypeFlags.Number)) return null
  const [brand] = type.types.flatMap((each) =>
    each.flags & ts.TypeFlags.Object ? checker.getPropertiesOfType(each) : [],
  )
  return checker.getTypeOfSymbol(brand).value
}

function unionOf(type) {
  const parts = type.types.filter((each) => !(each.flags & ts.TypeFlags.Undefined))
  const literals = parts.filter((each) => each.isStringLiteral() || each.isNumberLiteral())
  const truth = parts.filter((each) => each.flags & ts.TypeFlags.BooleanLiteral)
  const numbers = parts.filter((each) => unitOf(each))
  const rest = parts.filter((each) => ![literals, truth, numbers].some((list) => list.includes(each)))
  const schemas = [
    ...(literals.length > 1 ? [{ enum: literals.map(({ value }) => value).sort() }] : literals.map(schemaOf)),
    ...(truth.length === 2 ? [{ type: 'boolean' }] : truth.map(schemaOf)),
    // Levels of several units are one number, whose unit stands beside it.
    ...(numbers.length > 0 ? [{ type: 'number', description: numbers.map(unitOf).sort().join(' or ') }] : []),
    ...rest.map(schemaOf),
  ]
  return schemas.length === 1 ? schemas[0] : { anyOf: schemas.sort(inOrder) }
}

/** The compiler has no order of its own for the parts of a union: by their text, with null last. */
const inOrder = (one, other) => {
  const [a, b] = [one, other].map((each) => (each.type === 'null' ? '~' : JSON.stringify(each)))
  return a < b ? -1 : 1
}

function objectOf(type) {
  const [open] = checker.getIndexInfosOfType(type)
  const properties = {}
  const required = []
  for (const property of checker.getPropertiesOfType(type)) {
    const own = checker.getTypeOfSymbol(property)
    // What cannot be written to JSON is not sent.
    if (own.getCallSignatures().length > 0 || own.flags & (ts.TypeFlags.Undefined | ts.TypeFlags.Never)) continue
    const optional =
      Boolean(property.flags & ts.SymbolFlags.Optional) ||
      (own.isUnion() && own.types.some((each) => each.flags & ts.TypeFlags.Undefined))
    const schema = schemaOf(own)
    properties[property.getName()] =
      schema.$ref && described(property).description
        ? { allOf: [schema], ...described(property) }
        : { ...schema, ...described(property) }
    if (!optional) required.push(property.getName())
  }
  return {
    type: 'object',
    ...(Object.keys(properties).length > 0 && { properties }),
    ...(required.length > 0 && { required }),
    additionalProperties: open ? schemaOf(open.type) : false,
  }
}

const answers = Object.fromEntries(
  listed('AnswerTypes').map((each) => [each.getName(), schemaOf(checker.getTypeOfSymbol(each))]),
)
const text = await prettier.format(JSON.stringify({ answers, $defs: definitions }), { parser: 'json', printWidth: 120 })
if (process.argv.includes('--check')) {
  if (readFileSync(FILE, 'utf8') !== text) {
    console.log('server/contract/answers.json is not what the types say: run "npm run contract"')
    process.exit(1)
  }
} else writeFileSync(FILE, text)
