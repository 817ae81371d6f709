/** Work that gives way wherever it yields: at a run until it is done, or a slice of it in every task of a page that shall stay at hand. */
export type Steps<T> = Generator<void, T, void>

/** All of it at a run. */
export function finished<T>(steps: Steps<T>): T {
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
  }
}
