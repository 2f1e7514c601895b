import { and, inArray, isNull } from 'drizzle-orm'
import { Refusal } from '#core/kit'
import type { Reason } from '#core/kit'
import type { PlanLines } from '#core/methods'
import type { Reader } from '#server/kit'
import { equipment, parts, trades } from '../tables'

/** Every trade, part and piece of equipment of a plan is there and in use. @throws Refusal with each that is not, at its line */
export async function mustBeThere(db: Reader, plan: PlanLines): Promise<void> {
  const some = (ids: (number | null)[]) => [...new Set(ids)].filter((id) => id !== null)
  const [tradeIds, partIds, equipmentIds] = [
    some(plan.labour.map(({ tradeId }) => tradeId)),
    some(plan.parts.map(({ partId }) => partId)),
    some(plan.tools.map(({ equipmentId }) => equipmentId)),
  ]
  const [tradeRows, partRows, equipmentRows] = await Promise.all([
    tradeIds.length ? db.select({ id: trades.id }).from(trades).where(inArray(trades.id, tradeIds)) : [],
    partIds.length
      ? db
          .select({ id: parts.id })
          .from(parts)
          .where(and(inArray(parts.id, partIds), isNull(parts.retiredAt)))
      : [],
    equipmentIds.length
      ? db
          .select({ id: equipment.id })
          .from(equipment)
          .where(and(inArray(equipment.id, equipmentIds), isNull(equipment.retiredAt)))
      : [],
  ])
  const lacks = <Line>(lines: Line[], id: (line: Line) => number | null, rows: { id: number }[], list: string, field: string, sentence: string): Reason[] =>
    lines.flatMap((line, index) => {
      const asked = id(line)
      return asked === null || rows.some((row) => row.id === asked) ? [] : [{ code: 'unknown', sentence, field: `${list}.${index}.${field}` }]
    })
  const reasons = [
    ...lacks(plan.labour, ({ tradeId }) => tradeId, tradeRows, 'labour', 'tradeId', 'Choose a trade from the list.'),
    ...lacks(plan.parts, ({ partId }) => partId, partRows, 'parts', 'partId', 'Choose a part from the list: one that is in use.'),
    ...lacks(
      plan.tools,
      ({ equipmentId }) => equipmentId,
      equipmentRows,
      'tools',
      'equipmentId',
      'Choose a piece of equipment from the list: one that is in use.',
    ),
  ]
  if (reasons.length) throw new Refusal(reasons)
}
