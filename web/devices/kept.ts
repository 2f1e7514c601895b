import type { Device } from './device'

/** Documents and pictures that are kept, together (our own choice: a day of twelve jobs stays under 15 MB). */
const MOST_FILE_BYTES = 12_000_000
const WAITING = 'act-'
/** How long what is known of a place or an asset stays where nobody looks at it again (our own choice, no source). */
const SPOT_MS = 3 * 24 * 3_600_000

/** By what name the photo of an act lies on the device. */
export const fileNameOf = (key: string) => `${WAITING}${key}`

/** An answer of the server as it was read last; null where there is none, or it cannot be read. */
export async function keptAs<T>({ box, seal, accountId }: Device, name: string): Promise<T | null> {
  const found = await box.copy(accountId, name)
  return found ? seal.open<T>(found.sealed).catch(() => null) : null
}

export async function keepAs({ box, seal, accountId }: Device, name: string, value: unknown): Promise<void> {
  await box.keepCopy(accountId, { name, sealed: await seal.close(value) })
}

/** Of other jobs than these nothing stays, nor of places and assets nobody looked at of late. */
export async function dropCopies({ box, accountId }: Device, jobs: ReadonlySet<number>): Promise<void> {
  await box.dropCopies(accountId, (name) => {
    const visitId = Number(/^\/api\/rounds\/(\d+)/.exec(name)?.[1])
    return visitId > 0 && !jobs.has(visitId)
  })
  await box.dropCopies(accountId, (name) => name.startsWith('/api/rounds-spot'), Date.now() - SPOT_MS)
}

export async function keptBlob({ box, seal, accountId }: Device, id: string): Promise<Blob | null> {
  const file = await box.file(accountId, id)
  return file ? new Blob([await seal.openBytes(file.sealed)], { type: file.mime }) : null
}

/** Keeps a document or picture; the oldest go where there are too many, and never what waits to be sent. */
export async function keepBlob({ box, seal, accountId }: Device, id: string, blob: Blob): Promise<void> {
  await box.keepFile(accountId, { id, sealed: await seal.closeBytes(await blob.arrayBuffer()), mime: blob.type, bytes: blob.size })
  const files = (await box.files(accountId)).filter((one) => !one.id.startsWith(WAITING)).sort((a, b) => b.at - a.at)
  let sum = 0
  const drops = files.filter(({ bytes }) => (sum += bytes) > MOST_FILE_BYTES).map((one) => one.id)
  if (drops.length) await box.dropFiles(accountId, drops)
}
