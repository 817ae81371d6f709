/** The names of the specifications of something that nobody printed or measured: usual figures that stand in for them. */
export interface Assuming {
  assumed?: string[] | undefined
}

/** With one specification no longer assumed: somebody gave it. The last one out takes the list with it. */
export function noLongerAssumed<T extends Assuming>(owner: T, key: string): T {
  if (!owner.assumed?.includes(key)) return owner
  const left = owner.assumed.filter((each) => each !== key)
  return { ...owner, assumed: left.length > 0 ? left : undefined }
}

/** Everything that it has a figure for, as assumed. */
export const allAssumed = <T extends { specs: object }>(owner: T): T & Assuming => ({
  ...owner,
  assumed: Object.keys(owner.specs).filter((key) => typeof (owner.specs as Record<string, unknown>)[key] === 'number'),
})
