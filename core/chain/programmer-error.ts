/** For what only a mistake in the program can bring about; bad input never gets here. */
export const programmerError = (broken: string): Error => new Error(`Broken assumption: ${broken}.`)
