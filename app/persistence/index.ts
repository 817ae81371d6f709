/**
 * What is kept in the browser. The database and its package are fetched by the first call that needs them; everything here can be
 * imported without them.
 */
type Parts = typeof import('./database-parts')
let loading: Promise<Parts> | null = null

/** The parts that stand on the database; asked for again where they did not come. */
function parts(): Promise<Parts> {
  loading ??= import('./database-parts').catch((error: unknown) => {
    loading = null
    throw error
  })
  return loading
}

/** A method of one of the parts, called as soon as that is there. */
const late =
  <A extends unknown[], R>(method: (parts: Parts) => (...args: A) => R | Promise<R>) =>
  async (...args: A): Promise<R> =>
    method(await parts())(...args)

/** A subscription to one of the parts, begun as soon as that is there and ended at once. */
const lateWatch =
  <A extends unknown[]>(watch: (parts: Parts) => (...args: A) => () => void) =>
  (...args: A): (() => void) => {
    let stop: (() => void) | null = null
    let stopped = false
    const failed = args.at(-1) as unknown as (error: unknown) => void
    parts().then((each) => {
      if (!stopped) stop = watch(each)(...args)
    }, failed)
    return () => {
      stopped = true
      stop?.()
    }
  }

export const sessionRepository = {
  list: late(({ sessionRepository: it }) => it.list.bind(it)),
  read: late(({ sessionRepository: it }) => it.read.bind(it)),
  revision: late(({ sessionRepository: it }) => it.revision.bind(it)),
  create: late(({ sessionRepository: it }) => it.create.bind(it)),
  replace: late(({ sessionRepository: it }) => it.replace.bind(it)),
  sync: late(({ sessionRepository: it }) => it.sync.bind(it)),
  keys: late(({ sessionRepository: it }) => it.keys.bind(it)),
  whole: late(({ sessionRepository: it }) => it.whole.bind(it)),
  replaced: late(({ sessionRepository: it }) => it.replaced.bind(it)),
  setAside: late(({ sessionRepository: it }) => it.setAside.bind(it)),
  dropReplaced: late(({ sessionRepository: it }) => it.dropReplaced.bind(it)),
  add: late(({ sessionRepository: it }) => it.add.bind(it)),
  remove: late(({ sessionRepository: it }) => it.remove.bind(it)),
  restore: late(({ sessionRepository: it }) => it.restore.bind(it)),
  erase: late(({ sessionRepository: it }) => it.erase.bind(it)),
  purge: late(({ sessionRepository: it }) => it.purge.bind(it)),
  watch: lateWatch(({ sessionRepository: it }) => it.watch.bind(it)),
  watchList: lateWatch(({ sessionRepository: it }) => it.watchList.bind(it)),
}
export type { SessionAbout } from './session-about'
export type SessionStorage = typeof sessionRepository

export const shelfRepository = {
  list: late(({ shelfRepository: it }) => it.list.bind(it)),
  seed: late(({ shelfRepository: it }) => it.seed.bind(it)),
  add: late(({ shelfRepository: it }) => it.add.bind(it)),
  change: late(({ shelfRepository: it }) => it.change.bind(it)),
  remove: late(({ shelfRepository: it }) => it.remove.bind(it)),
  restore: late(({ shelfRepository: it }) => it.restore.bind(it)),
  watch: lateWatch(({ shelfRepository: it }) => it.watch.bind(it)),
}

export const logRepository = {
  list: late(({ logRepository: it }) => it.list.bind(it)),
  read: late(({ logRepository: it }) => it.read.bind(it)),
  add: late(({ logRepository: it }) => it.add.bind(it)),
  addMissing: late(({ logRepository: it }) => it.addMissing.bind(it)),
  copy: late(({ logRepository: it }) => it.copy.bind(it)),
  watch: lateWatch(({ logRepository: it }) => it.watch.bind(it)),
}

export const trainerRepository = {
  read: late(({ trainerRepository: it }) => it.read.bind(it)),
  learn: late(({ trainerRepository: it }) => it.learn.bind(it)),
  addBack: late(({ trainerRepository: it }) => it.addBack.bind(it)),
  addTime: late(({ trainerRepository: it }) => it.addTime.bind(it)),
  clear: late(({ trainerRepository: it }) => it.clear.bind(it)),
  watch: lateWatch(({ trainerRepository: it }) => it.watch.bind(it)),
}

export const memos = {
  get: late(({ memos: it }) => it.get.bind(it)),
  set: late(({ memos: it }) => it.set.bind(it)),
  dayOfUse: late(({ memos: it }) => it.dayOfUse.bind(it)),
}

export const fileLinks = {
  get: late(({ fileLinks: it }) => it.get.bind(it)),
  set: late(({ fileLinks: it }) => it.set.bind(it)),
  drop: late(({ fileLinks: it }) => it.drop.bind(it)),
}

export const secondCopies = {
  keep: late(({ secondCopies: it }) => it.keep.bind(it)),
  read: late(({ secondCopies: it }) => it.read.bind(it)),
  bringLogBack: late(({ secondCopies: it }) => it.bringLogBack.bind(it)),
  list: late(({ secondCopies: it }) => it.list.bind(it)),
  drop: late(({ secondCopies: it }) => it.drop.bind(it)),
}

/** Calls back when the database is closed or deleted under the open page. A database that never came cannot be lost. */
export function onStorageLost(lost: () => void): void {
  parts().then(({ onStorageLost: on }) => on(lost), lost)
}

/** Whether this browser has a database of this program at all; taken to have one where the browser does not say. */
export async function hasDatabase(): Promise<boolean> {
  if (typeof indexedDB === 'undefined' || !indexedDB.databases) return true
  return (await indexedDB.databases()).some(({ name }) => name === 'remetra')
}

/** Whether a newer version of the program made the database. */
export async function hasNewerDatabase(): Promise<boolean> {
  return (await parts()).isNewerDatabase()
}

/** Everything in the database as it is, as one file. */
export async function rawDatabase(): Promise<Blob> {
  const { rawParts } = await import('./raw-export')
  const text: string[] = []
  for await (const part of rawParts('remetra')) text.push(part)
  return new Blob(text, { type: 'application/json' })
}

export { newKey } from './new-key'
export { isMarkedFresh, markFresh } from './fresh-mark'
export { dropLastWords, lastWordsOf, leaveLastWords } from './last-words'
export { noteKeptCount, keptCountNoted } from './kept-count'
export { describeStorageTrouble } from './storage-trouble'
export { ConflictError, GoneError, NewerDataError, RESTORABLE_DAYS } from './conflict'
export { isNewer } from './aside'
export type { Aside } from './aside'
export type { Shelf } from './shelf-repository'
export type { AsideRow } from './database'
export type { LogReading, NewLogEntry } from './log-repository'
export type { Opening } from './kept-session'
export type { SessionRow, ShelfRow, Step } from './database'
export type { FileLink } from './file-links'
export type { SecondCopy } from './second-copy'
