/** A sentence out of a phrase. */
export const capital = (phrase: string): string => phrase.charAt(0).toUpperCase() + phrase.slice(1)

/** A phrase out of a sentence. */
export const lowerCase = (sentence: string): string =>
  /^[A-Z]{2}/.test(sentence) ? sentence : sentence.charAt(0).toLowerCase() + sentence.slice(1)
