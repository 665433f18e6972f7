/** A file that this device keeps until the server has it. */
export interface KeptFile {
  id: number
  /** Where it was chosen: whose page, and of what. */
  place: string
  file: File
}

const NAME = 'polycline-files'
const STORE = 'files'
/** Larger ones are chosen again: a device may have little room. */
const LARGEST = 60 * 1024 * 1024

/** Runs something on the store; null where this browser keeps nothing. */
async function within<T>(how: IDBTransactionMode, run: (store: IDBObjectStore) => IDBRequest<T>): Promise<T | null> {
  try {
    const database = await answered(open())
    try {
      return await answered(run(database.transaction(STORE, how).objectStore(STORE)))
    } finally {
      database.close()
    }
  } catch {
    return null
  }
}

function open(): IDBOpenDBRequest {
  const asked = indexedDB.open(NAME, 1)
  asked.onupgradeneeded = () => asked.result.createObjectStore(STORE, { keyPath: 'id', autoIncrement: true })
  return asked
}

const answered = <T>(asked: IDBRequest<T>) =>
  new Promise<T>((resolve, reject) => {
    asked.onsuccess = () => resolve(asked.result)
    asked.onerror = () => reject(asked.error ?? new Error('The browser did not answer.'))
  })

/** Keeps a file; null: it is too large, or this browser keeps nothing. */
export async function keepFile(place: string, file: File): Promise<number | null> {
  if (file.size > LARGEST) return null
  return (await within('readwrite', (store) => store.add({ place, file }))) as number | null
}

/** The files kept for a place, in the order in which they were chosen. */
export async function keptFiles(place: string): Promise<KeptFile[]> {
  const all = await within('readonly', (store) => store.getAll() as IDBRequest<KeptFile[]>)
  return (all ?? []).filter((one) => one.place === place)
}

/**
 * Takes a kept file for this page, until it is closed or lets go; null: another page of this device has it.
 * @returns What lets go of it.
 */
export function takeFile(id: number): Promise<(() => void) | null> {
  const { locks } = navigator as Partial<Navigator>
  if (!locks) return Promise.resolve(() => undefined)
  return new Promise((resolve) => {
    void locks.request(`${NAME}-${id}`, { ifAvailable: true }, (lock) =>
      lock ? new Promise<void>((release) => resolve(release)) : resolve(null),
    )
  })
}

export const dropFile = (id: number) => within('readwrite', (store) => store.delete(id))

/** Leaves none to whoever uses this device next. */
export const forgetFiles = () => within('readwrite', (store) => store.clear())
