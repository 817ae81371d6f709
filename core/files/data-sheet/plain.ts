/** A text in small letters without accents, letter for letter, so that places in it are places in the text. */
export const plain = (text: string): string =>
  [...text]
    .map((letter) => (letter.length > 1 ? '  ' : ((letter.normalize('NFD')[0] ?? letter).toLowerCase()[0] ?? letter)))
    .join('')
    .replace(/[’‘`´]/g, "'")

/** Whether a place lies in brackets. */
export function inBrackets(text: string, at: number): boolean {
  const before = text.slice(0, at)
  return before.lastIndexOf('(') > before.lastIndexOf(')') || before.lastIndexOf('[') > before.lastIndexOf(']')
}
