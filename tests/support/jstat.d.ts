/** The parts of the package that the tests use; it ships no types. */
declare module 'jstat' {
  interface Law {
    cdf: (x: number, ...parameters: number[]) => number
    inv: (p: number, ...parameters: number[]) => number
    pdf: (x: number, ...parameters: number[]) => number
  }
  export const jStat: { weibull: Law; studentt: Law }
}
