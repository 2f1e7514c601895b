import { inArray } from 'drizzle-orm'
import type { PlanNames } from '#contract/methods'
import type { PlanLines } from '#core/methods'
import type { Reader } from '#server/kit'
import { equipment, parts, trades } from '../tables'

/** What the ids in plans are called: three small statements at once. */
export async function planNames(db: Reader, plans: readonly PlanLines[]): Promise<PlanNames> {
  const ids = (read: (plan: PlanLines) => (number | null)[]) => [...new Set(plans.flatMap(read))].filter((id) => id !== null)
  const tradeIds = ids(({ labour }) => labour.map(({ tradeId }) => tradeId))
  const partIds = ids((plan) => plan.parts.map(({ partId }) => partId))
  const equipmentIds = ids(({ tools }) => tools.map(({ equipmentId }) => equipmentId))
  const [tradeRows, partRows, equipmentRows] = await Promise.all([
    tradeIds.length ? db.select({ id: trades.id, name: trades.name }).from(trades).where(inArray(trades.id, tradeIds)) : [],
    partIds.length ? db.select({ id: parts.id, code: parts.code, name: parts.name, unit: parts.unit }).from(parts).where(inArray(parts.id, partIds)) : [],
    equipmentIds.length
      ? db.select({ id: equipment.id, tag: equipment.tag, name: equipment.name }).from(equipment).where(inArray(equipment.id, equipmentIds))
      : [],
  ])
  return {
    trades: Object.fromEntries(tradeRows.map(({ id, name }) => [id, name])),
    parts: Object.fromEntries(partRows.map(({ id, ...part }) => [id, part])),
    equipment: Object.fromEntries(equipmentRows.map(({ id, tag, name }) => [id, `${tag} ${name}`])),
  }
}
