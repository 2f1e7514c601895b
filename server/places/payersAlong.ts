import { inArray, isNull } from 'drizzle-orm'
import type { Reader } from '#server/kit'
import { payers, places } from '../tables'

export interface Paying {
  id: number
  /** "5400 Aquarium Operations". */
  name: string
}

/** Payers in use, by their ids. */
export async function payersNamed(db: Reader): Promise<(id: number | null) => Paying | null> {
  const all = await db.select({ id: payers.id, code: payers.code, name: payers.name }).from(payers).where(isNull(payers.retiredAt))
  return (id) => {
    const payer = all.find((one) => one.id === id)
    return payer ? { id: payer.id, name: `${payer.code} ${payer.name}` } : null
  }
}

/** Who pays, by the path of a place among these: the payer of the nearest place on it that has one in use. */
export async function payersAlong(db: Reader, paths: readonly string[]): Promise<(path: string) => Paying | null> {
  const named = await payersNamed(db)
  const ids = [...new Set(paths.flatMap(idsOf))]
  const rows = ids.length ? await db.select({ id: places.id, payerId: places.payerId }).from(places).where(inArray(places.id, ids)) : []
  const paid = new Map(rows.map(({ id, payerId }) => [id, payerId]))
  return (path) => {
    for (const id of idsOf(path).reverse()) {
      const payer = named(paid.get(id) ?? null)
      if (payer) return payer
    }
    return null
  }
}

const idsOf = (path: string): number[] => path.split('/').filter(Boolean).map(Number)
