/** The parts of the package that are used; it ships no types. */
declare module 'jstat' {
  interface Law {
    cdf: (x: number, ...parameters: number[]) => number
    inv: (p: number, ...parameters: number[]) => number
    pdf: (x: number, ...parameters: number[]) => number
  }
  const jStat: {
    QR: (matrix: readonly (readonly number[])[]) => [q: number[][], r: number[][]]
    inv: (matrix: readonly (readonly number[])[]) => number[][]
    erf: (x: number) => number
    erfcinv: (p: number) => number
    ibetainv: (p: number, a: number, b: number) => number
    weibull: Law
    studentt: Law
  }
  export default jStat
}
