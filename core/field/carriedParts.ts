import Big from 'big.js'
import type { RecordedAct } from './acts'

interface Lying {
  storeId: number
  free: string
  mine: boolean
}
interface Carried {
  id: number
  inStock: string
  lies: Lying[]
}

/**
 * Parts as they lie with what was recorded and is not known to the server yet: taken out of the store that was named, or
 * brought back to it. Without a store, the server will choose: the first it lies in is taken to be it.
 */
export const partsWithActs = <Part extends Carried>(parts: readonly Part[], acts: readonly RecordedAct[]): Part[] =>
  parts.map((part) => acts.reduce((now, act) => (isOf(now, act) ? moved(now, act) : now), part))

type PartAct = Extract<RecordedAct, { name: 'part' | 'partBack' }>
const isOf = ({ id }: Carried, act: RecordedAct): act is PartAct => (act.name === 'part' || act.name === 'partBack') && act.input.partId === id

function moved<Part extends Carried>(part: Part, { name, input: { quantity, storeId } }: PartAct): Part {
  const at = storeId ?? part.lies[0]?.storeId
  const by = name === 'part' ? new Big(quantity).neg() : new Big(quantity)
  const after = (free: string) => {
    const left = new Big(free).plus(by)
    return left.lt(0) ? '0' : left.toString()
  }
  return { ...part, inStock: after(part.inStock), lies: part.lies.map((one) => (one.storeId === at ? { ...one, free: after(one.free) } : one)) }
}

interface Moved {
  partId?: number
  code: string
  name: string
  unit: string
  quantity: string
}

/** What a job has of each part: what was taken less what came back; nothing of what is back whole. */
export function usedParts(moves: readonly Moved[]): Moved[] {
  const sums = new Map<string, { move: Moved; all: Big }>()
  for (const move of moves) sums.set(move.code, { move, all: (sums.get(move.code)?.all ?? new Big(0)).plus(move.quantity) })
  return [...sums.values()].flatMap(({ move, all }) => (all.gt(0) ? [{ ...move, quantity: all.toString() }] : []))
}
