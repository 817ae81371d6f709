// The changes that a test should notice: found in a file's syntax, and built into its text behind a switch.
import ts from 'typescript'

/** What each operator becomes. */
const OPERATORS = new Map([
  ['+', ['-']],
  ['-', ['+']],
  ['*', ['/']],
  ['/', ['*']],
  ['%', ['*']],
  ['**', ['*']],
  ['<', ['<=', '>=']],
  ['<=', ['<', '>']],
  ['>', ['>=', '<=']],
  ['>=', ['>', '<']],
  ['===', ['!==']],
  ['!==', ['===']],
  ['&&', ['||']],
  ['||', ['&&']],
  ['??', ['&&']],
])
/** What each method becomes. */
const METHODS = new Map([
  ['min', 'max'],
  ['max', 'min'],
  ['some', 'every'],
  ['every', 'some'],
  ['floor', 'ceil'],
  ['ceil', 'floor'],
  ['startsWith', 'endsWith'],
  ['endsWith', 'startsWith'],
])
/** Methods whose call may be left out: what they are called on stands for what they give. */
const LEFT_OUT = new Set(['filter', 'sort', 'reverse', 'trim', 'slice', 'toSorted', 'toReversed'])

/**
 * All changes of a file that are looked at, each as the text that stands in for an expression.
 * @returns {{ start: number, end: number, text: string, line: number, what: string, opensStatement: boolean }[]}
 */
export function mutantsOf(source, file) {
  const tree = ts.createSourceFile(file, source, ts.ScriptTarget.Latest, true)
  const found = []
  const openings = new Set()
  const textOf = (node) => source.slice(node.getStart(tree), node.end)
  const add = (node, text) => {
    const start = node.getStart(tree)
    const line = tree.getLineAndCharacterOfPosition(start).line + 1
    found.push({ start, end: node.end, text, line, what: `${shortened(textOf(node))}  →  ${shortened(text)}` })
  }
  const visit = (node) => {
    if (ts.isTypeNode(node) || ts.isInterfaceDeclaration(node) || ts.isImportDeclaration(node)) return
    if (ts.isBinaryExpression(node)) {
      const sign = node.operatorToken.getText(tree)
      const isText = sign === '+' && [node.left, node.right].some(isString)
      for (const other of isText ? [] : (OPERATORS.get(sign) ?? []))
        // A sum of products keeps its brackets: the parts stand as they were, whatever binds closer now.
        add(node, `(${textOf(node.left)}) ${other} (${textOf(node.right)})`)
    }
    const condition = ts.isIfStatement(node)
      ? node.expression
      : ts.isConditionalExpression(node)
        ? node.condition
        : null
    if (condition) for (const always of ['true', 'false']) add(condition, always)
    if (ts.isPrefixUnaryExpression(node)) {
      if (node.operator === ts.SyntaxKind.ExclamationToken) add(node, `(${textOf(node.operand)})`)
      if (node.operator === ts.SyntaxKind.MinusToken) add(node, `(${textOf(node.operand)})`)
    }
    if (node.kind === ts.SyntaxKind.TrueKeyword) add(node, 'false')
    if (node.kind === ts.SyntaxKind.FalseKeyword) add(node, 'true')
    if (ts.isCallExpression(node) && ts.isPropertyAccessExpression(node.expression) && !ts.isOptionalChain(node)) {
      const { name, expression: owner } = node.expression
      const other = METHODS.get(name.text)
      if (other)
        add(
          node,
          `${source.slice(node.getStart(tree), name.getStart(tree))}${other}${source.slice(name.end, node.end)}`,
        )
      if (LEFT_OUT.has(name.text)) add(node, textOf(owner))
    }
    if (ts.isExpressionStatement(node) && stands(node.parent)) openings.add(node.getStart(tree))
    if (ts.isExpressionStatement(node) && ts.isCallExpression(node.expression) && !isSuper(node.expression))
      add(node.expression, 'undefined')
    ts.forEachChild(node, visit)
  }
  visit(tree)
  // Without semicolons a bracket at the beginning of a line would go on with the line before.
  return found.map((each) => ({ ...each, opensStatement: openings.has(each.start) }))
}

const stands = (node) => ts.isBlock(node) || ts.isSourceFile(node) || ts.isCaseOrDefaultClause(node)

const isString = (node) => ts.isStringLiteralLike(node) || ts.isTemplateExpression(node)
const isSuper = (call) => call.expression.kind === ts.SyntaxKind.SuperKeyword
const shortened = (text) => {
  const line = text.replace(/\s+/g, ' ')
  return line.length > 60 ? `${line.slice(0, 57)}…` : line
}

/**
 * A file's text with its mutants in it, each behind `__mutant(n)`, which says whether it is the one at work.
 * @param mutants with their numbers; those within others stand in the original of these
 */
export function withMutants(source, mutants) {
  const inside = (from, to, own) => {
    let text = ''
    let at = from
    let rest = own
    while (rest.length > 0) {
      const first = rest.reduce((a, b) => (b.start < a.start || (b.start === a.start && b.end > a.end) ? b : a))
      const same = rest.filter(({ start, end }) => start === first.start && end === first.end)
      const within = rest.filter((each) => !same.includes(each) && each.start >= first.start && each.end <= first.end)
      const original = inside(first.start, first.end, within)
      text += source.slice(at, first.start)
      text += `${first.opensStatement ? ';' : ''}(${same.map(({ id, text: other }) => `__mutant(${id})?(${other}):`).join('')}(${original}))`
      at = first.end
      rest = rest.filter((each) => !same.includes(each) && !within.includes(each))
    }
    return text + source.slice(at, to)
  }
  return inside(0, source.length, mutants)
}
