/** Work that can pause wherever it yields: run to its end at once, or a slice at a time, so that a page answers in between. */
export type Steps<T> = Generator<void, T, void>

/** Runs it to its end at once. */
export function finished<T>(steps: Steps<T>): T {
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
  }
}
