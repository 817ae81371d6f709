/** Resolves in the next task of the page: work that is split by it lets the page draw and answer in between. */
export const nextTask = (): Promise<void> =>
  new Promise((resolve) => {
    setTimeout(resolve)
  })
