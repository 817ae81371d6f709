import type { Remote } from 'comlink'

/**
 * A worker that answers calls; begun with the first one, and anew after it stopped. The package that carries the calls is fetched with
 * it.
 */
export class WorkerLink<T> {
  private open: Promise<{ remote: Remote<T>; stopped: Promise<never> }> | null = null

  constructor(
    private readonly what: string,
    private readonly begin: () => Worker,
  ) {}

  /** Calls the worker; fails where it stops or does not come, since it would never answer. */
  async ask<R>(call: (remote: Remote<T>) => PromiseLike<unknown>): Promise<R> {
    this.open ??= this.connect()
    const { remote, stopped } = await this.open
    return (await Promise.race([call(remote), stopped])) as R
  }

  private async connect() {
    const { wrap } = await import('comlink').catch((error: unknown) => {
      this.open = null
      throw error
    })
    const worker = this.begin()
    const stopped = new Promise<never>((_, reject) => {
      worker.addEventListener('error', () => {
        worker.terminate()
        this.open = null
        reject(Object.assign(new Error(`The ${this.what} stopped.`), { name: 'WorkerStoppedError' }))
      })
    })
    stopped.catch(() => undefined) // told by whoever waits for an answer
    return { remote: wrap<T>(worker), stopped }
  }
}
