import { openDB } from 'idb'
import type { DBSchema, IDBPDatabase } from 'idb'
import type { Sealed } from './seal'

/** An act as it lies on the device: what it says is sealed. */
export interface StoredAct {
  /** In the order in which they were recorded. */
  seq: number
  accountId: number
  /** Under which it is sent, however often. */
  key: string
  sealed: Sealed
}

/** An answer of the server as it lies on the device. */
interface StoredCopy {
  accountId: number
  name: string
  sealed: Sealed
  at: number
}

/** A photo to be sent, or a document or picture that was read. */
interface StoredFile {
  accountId: number
  id: string
  sealed: Sealed
  mime: string
  bytes: number
  at: number
}

/** Who works with this device. Without a key, nothing it keeps for them can be read. */
export interface Holder {
  accountId: number
  key: CryptoKey | null
  /** When the server was last heard, by its own clock and by that of the device. */
  heardAt: number
  offset: number
}

interface Schema extends DBSchema {
  acts: { key: number; value: StoredAct; indexes: { accountId: number } }
  copies: { key: [number, string]; value: StoredCopy; indexes: { accountId: number } }
  files: { key: [number, string]; value: StoredFile; indexes: { accountId: number } }
  device: { key: string; value: string }
  holders: { key: number; value: Holder }
}

export type Copy = Pick<StoredCopy, 'name' | 'sealed'>

const VERSION = 1

/** What lies on the device, in the browser’s own database. Each method is one transaction: it happens whole or not at all. */
export class Box {
  private constructor(private readonly db: IDBPDatabase<Schema>) {}

  static async open(name = 'evrix'): Promise<Box> {
    const db = await openDB<Schema>(name, VERSION, {
      upgrade(fresh) {
        fresh.createObjectStore('acts', { keyPath: 'seq', autoIncrement: true }).createIndex('accountId', 'accountId')
        for (const store of ['copies', 'files'] as const)
          fresh.createObjectStore(store, { keyPath: store === 'copies' ? ['accountId', 'name'] : ['accountId', 'id'] }).createIndex('accountId', 'accountId')
        fresh.createObjectStore('device')
        fresh.createObjectStore('holders', { keyPath: 'accountId' })
      },
      // A newer page wants to change what lies here: it is let in.
      blocking: (_current, _wanted, event) => (event.target as IDBDatabase).close(),
    })
    return new Box(db)
  }

  close = (): void => this.db.close()

  /** What this device calls itself. */
  async ident(make: () => string): Promise<string> {
    const tx = this.db.transaction('device', 'readwrite')
    const ident = (await tx.store.get('ident')) ?? make()
    await tx.store.put(ident, 'ident')
    await tx.done
    return ident
  }

  holders = (): Promise<Holder[]> => this.db.getAll('holders')

  async keepHolder(holder: Holder): Promise<void> {
    await this.db.put('holders', holder)
  }

  /** An act, with the file it carries. @returns its place in the order */
  async add(act: Omit<StoredAct, 'seq'>, file?: Omit<StoredFile, 'accountId' | 'at'>): Promise<number> {
    const tx = this.db.transaction(['acts', 'files'], 'readwrite')
    if (file) await tx.objectStore('files').put({ ...file, accountId: act.accountId, at: Date.now() })
    const seq = await tx.objectStore('acts').add(act as StoredAct)
    await tx.done
    return seq
  }

  acts = (accountId: number): Promise<StoredAct[]> => this.db.getAllFromIndex('acts', 'accountId', accountId)

  holds = async (accountId: number, seq: number): Promise<boolean> => (await this.db.get('acts', seq))?.accountId === accountId

  /** Writes an act anew, unless it is gone. */
  async change(act: StoredAct): Promise<void> {
    const tx = this.db.transaction('acts', 'readwrite')
    if (await tx.store.get(act.seq)) await tx.store.put(act)
    await tx.done
  }

  /** An act that is done with, its file, and what the server answered, in one. */
  async settle(accountId: number, seq: number, fileId: string | undefined, copies: readonly Copy[]): Promise<void> {
    const tx = this.db.transaction(['acts', 'files', 'copies'], 'readwrite')
    await tx.objectStore('acts').delete(seq)
    if (fileId) await tx.objectStore('files').delete([accountId, fileId])
    for (const copy of copies) await tx.objectStore('copies').put({ ...copy, accountId, at: Date.now() })
    await tx.done
  }

  async keepCopy(accountId: number, copy: Copy): Promise<void> {
    await this.db.put('copies', { ...copy, accountId, at: Date.now() })
  }
  copy = (accountId: number, name: string): Promise<StoredCopy | undefined> => this.db.get('copies', [accountId, name])
  /** @param before only those that were kept before then, in milliseconds of the device's clock */
  async dropCopies(accountId: number, drops: (name: string) => boolean, before = Infinity): Promise<void> {
    const tx = this.db.transaction('copies', 'readwrite')
    for (const key of await tx.store.index('accountId').getAllKeys(accountId))
      if (drops(key[1]) && (before === Infinity || (await tx.store.get(key))!.at < before)) await tx.store.delete(key)
    await tx.done
  }

  async keepFile(accountId: number, file: Omit<StoredFile, 'accountId' | 'at'>): Promise<void> {
    await this.db.put('files', { ...file, accountId, at: Date.now() })
  }
  file = (accountId: number, id: string): Promise<StoredFile | undefined> => this.db.get('files', [accountId, id])
  files = async (accountId: number): Promise<{ id: string; bytes: number; at: number }[]> =>
    (await this.db.getAllFromIndex('files', 'accountId', accountId)).map(({ id, bytes, at }) => ({ id, bytes, at }))
  async dropFiles(accountId: number, ids: readonly string[]): Promise<void> {
    const tx = this.db.transaction('files', 'readwrite')
    await Promise.all(ids.map((id) => tx.store.delete([accountId, id])))
    await tx.done
  }

  /** Nothing that is kept for this person can be read any more; what waits to be sent stays, sealed. */
  async lock(accountId: number): Promise<void> {
    const tx = this.db.transaction(['holders', 'copies', 'files', 'acts'], 'readwrite')
    await tx.objectStore('holders').delete(accountId)
    for (const key of await tx.objectStore('copies').index('accountId').getAllKeys(accountId)) await tx.objectStore('copies').delete(key)
    // Photos wait with the acts that carry them.
    const isWaiting = (await tx.objectStore('acts').index('accountId').count(accountId)) > 0
    for (const key of await tx.objectStore('files').index('accountId').getAllKeys(accountId))
      if (!isWaiting || !key[1].startsWith('act-')) await tx.objectStore('files').delete(key)
    await tx.done
  }
}
