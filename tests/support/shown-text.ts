import { readFileSync } from 'node:fs'
import ts from 'typescript'

/** The texts in code that can be shown: strings and templates of more than one word, with “X” for what is put into them. */
function textsInCode(code: string): string[] {
  const found: string[] = []
  const visit = (node: ts.Node): void => {
    if (ts.isTemplateExpression(node))
      found.push(node.head.text + node.templateSpans.map(({ literal }) => `X${literal.text}`).join(''))
    else if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) found.push(node.text)
    ts.forEachChild(node, visit)
  }
  visit(ts.createSourceFile('code.ts', code, ts.ScriptTarget.Latest, true))
  return found
}

/** The texts between the tags of a component. */
const textsInTemplate = (template: string): string[] =>
  [
    ...template
      .replace(/<!--[^]*?-->/g, '')
      .replace(/\{\{[^]*?\}\}/g, 'X')
      .matchAll(/>([^<>]+)</g),
  ].map(([, text]) => text ?? '')

/** Every text of a source file that a person can meet. */
export function shownTexts(file: string): string[] {
  const source = readFileSync(file, 'utf8')
  if (!file.endsWith('.vue')) return textsInCode(source)
  const [, code = ''] = /<script[^>]*>([^]*?)<\/script>/.exec(source) ?? []
  const [, template = ''] = /<template>([^]*)<\/template>/.exec(source) ?? []
  return [...textsInCode(code), ...textsInTemplate(template)]
}

/** A text’s sentences, by full stops before a capital, a quote or code. */
export const sentencesOf = (text: string): string[] =>
  text
    .replace(/\s+/g, ' ')
    .trim()
    .split(/(?<=[.!?]) (?=[A-Z“`*])/)
