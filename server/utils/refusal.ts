import type { Fault } from '#core/files'

/** A request that is not answered as it was asked, with its status and what the caller can do. */
export class Refusal extends Error {
  override readonly name = 'Refusal'
  readonly errors: Fault[]
  readonly headers: Record<string, string>

  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    more: { errors?: Fault[]; retryAfter?: number; allow?: string } = {},
  ) {
    super(detail)
    this.errors = more.errors ?? []
    this.headers = {
      ...(more.retryAfter !== undefined && { 'retry-after': String(more.retryAfter) }),
      ...(more.allow !== undefined && { allow: more.allow }),
    }
  }
}
