/** Rows that are read at once. */
const PORTION = 200

/**
 * Everything in a database as it is, as parts of one JSON text: for a database that this program must not use. It is opened without
 * a version, read, and closed.
 */
export async function* rawParts(name: string): AsyncGenerator<string> {
  const database = await settled(indexedDB.open(name))
  try {
    yield `{"format":"remetra.raw","database":${JSON.stringify(name)},"version":${database.version},"tables":{`
    for (const [i, table] of [...database.objectStoreNames].entries()) {
      yield `${i > 0 ? ',' : ''}\n${JSON.stringify(table)}:[`
      yield* rowsOf(database, table)
      yield ']'
    }
    yield '}}\n'
  } finally {
    database.close()
  }
}

async function* rowsOf(database: IDBDatabase, table: string): AsyncGenerator<string> {
  const keys = await settled(database.transaction(table).objectStore(table).getAllKeys())
  for (let at = 0; at < keys.length; at += PORTION) {
    const [first, last] = [keys[at], keys[Math.min(keys.length, at + PORTION) - 1]]
    const rows = await settled(database.transaction(table).objectStore(table).getAll(IDBKeyRange.bound(first, last)))
    yield `${at > 0 ? ',' : ''}\n${rows.map((row) => JSON.stringify(row)).join(',\n')}`
  }
}

const settled = <T>(request: IDBRequest<T>): Promise<T> =>
  new Promise((resolve, reject) => {
    request.onsuccess = () => resolve(request.result)
    request.onerror = () => reject(request.error ?? new Error('The database did not answer.'))
  })
