import type { Done } from '#contract/kit'
import type { BulkRow } from '#contract/lists'
import { refusedFor } from '#server/kit'
import type { Tx } from '#server/kit'

/** A row as it stood before. */
export interface Standing {
  id: number
  number: string
  state: string
  version: number
}

/**
 * Makes a move of each row in turn, each whole or not at all: a row that is refused leaves the others as
 * they are, and says why. Rows are taken in one order, so that two who move the same rows never wait for
 * each other in a ring.
 */
export async function moveSeveral(
  tx: Tx,
  items: { id: number; version: number }[],
  known: Standing[],
  make: (inner: Tx, item: { id: number; version: number }) => Promise<Done>,
): Promise<BulkRow[]> {
  const rows: BulkRow[] = []
  for (const item of [...items].sort((a, b) => a.id - b.id)) {
    const before = known.find((one) => one.id === item.id)
    const stays = (reasons: BulkRow['reasons']): BulkRow => ({
      id: item.id,
      number: before?.number ?? '',
      moved: false,
      state: before?.state ?? '',
      version: before?.version ?? item.version,
      reasons,
    })
    if (!before) {
      rows.push(stays([{ code: 'not_found', sentence: 'It is not there, or not yours to see.' }]))
      continue
    }
    try {
      const done = await tx.transaction((inner) => make(inner, item))
      rows.push({ id: item.id, number: before.number, moved: true, state: done.state, version: done.version, reasons: [] })
    } catch (error) {
      rows.push(stays(refusedFor(error)))
    }
  }
  const place = new Map(items.map((item, index) => [item.id, index]))
  return rows.sort((a, b) => place.get(a.id)! - place.get(b.id)!)
}
