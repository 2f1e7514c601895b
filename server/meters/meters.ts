import { and, asc, desc, eq, inArray, isNull } from 'drizzle-orm'
import * as contract from '#contract/meters'
import type { MeterRow } from '#contract/meters'
import { refuse } from '#core/kit'
import { ranSince, usualPerDay } from '#core/meters'
import { canAt, command, maySee, notAllowed, notFound, query } from '#server/kit'
import type { Asker, Outgoing, Reader, Tx } from '#server/kit'
import { assets, meters, orders, readings } from '../tables'
import { plain } from './records'

const SHOWN = 60

async function seenAsset(db: Reader, who: Asker, id: number) {
  const [asset] = await db.select().from(assets).where(eq(assets.id, id))
  if (!asset || !maySee(who, asset.siteId)) throw notFound('asset')
  return asset
}

/** A meter with its asset, locked for a change. @throws ProblemReply 404 */
export async function lockMeter(tx: Tx, who: Asker, id: number) {
  const [found] = await tx.select({ meter: meters, asset: assets }).from(meters).innerJoin(assets, eq(assets.id, meters.assetId)).where(eq(meters.id, id)).for('update') // prettier-ignore
  if (!found || !maySee(who, found.asset.siteId)) throw notFound('meter')
  return found
}

/** The meters of an asset with all that is said of them. Two statements. */
export async function metersOf(db: Reader, who: Asker, assetId: number): Promise<Outgoing<{ rows: MeterRow[]; mayEdit: boolean }>> {
  const asset = await seenAsset(db, who, assetId)
  const mine = await db
    .select()
    .from(meters)
    .where(and(eq(meters.assetId, assetId), isNull(meters.retiredAt)))
    .orderBy(asc(meters.id))
  const ids = mine.map(({ id }) => id)
  const all = ids.length
    ? await db
        .select({ reading: readings, order: { id: orders.id, number: orders.number } })
        .from(readings)
        .leftJoin(orders, eq(orders.id, readings.orderId))
        .where(inArray(readings.meterId, ids))
        .orderBy(desc(readings.at), desc(readings.id))
    : []
  const rows = mine.map(({ id, name, unit, rollsAt }) => {
    const shown = all.filter(({ reading }) => reading.meterId === id)
    const counting = shown.map(({ reading }) => reading).filter(({ struckAt }) => !struckAt)
    return {
      ...{ id, name, unit, rollsAt: rollsAt && plain(rollsAt) },
      usualPerDay: usualPerDay(counting, rollsAt),
      ran: ranSince(counting, rollsAt).toString(),
      readings: shown.slice(0, SHOWN).map(({ reading, order }) => ({
        ...{ id: reading.id, value: plain(reading.value), at: reading.at, anew: reading.anew, who: reading.readBy, order },
        struck: reading.struckAt && { by: reading.struckBy!, at: reading.struckAt, reason: reading.struckReason! },
      })),
    }
  })
  return { rows, mayEdit: canAt(who, 'registers.edit', asset.siteId) && asset.retiredAt === null }
}

export const readMeters = query(contract.readMeters, ({ db, who, input }) => metersOf(db, who, input.assetId))

export const addMeter = command(contract.addMeter, async ({ tx, who, input, tell }) => {
  const { assetId, name, unit, rollsAt } = input
  const asset = await seenAsset(tx, who, assetId)
  if (!canAt(who, 'registers.edit', asset.siteId)) throw notAllowed()
  if (asset.retiredAt) refuse('retired', 'It is retired. Take it into use again first.')
  if (rollsAt && Number(rollsAt) <= 0) refuse('rolls_at', 'Say at what number above nought it begins again.', 'rollsAt')
  const [same] = await tx
    .select({ id: meters.id })
    .from(meters)
    .where(and(eq(meters.assetId, assetId), eq(meters.name, name), isNull(meters.retiredAt)))
  if (same) refuse('meter_known', 'It has a meter of that name already.', 'name')
  await tx.insert(meters).values({ assetId, name, unit, rollsAt: rollsAt ?? null })
  await tell({ kind: 'meter.add', siteId: asset.siteId, register: 'assets', recordId: assetId, details: { meter: `${name}, ${unit}` } })
  return metersOf(tx, who, assetId)
})

export const retireMeter = command(contract.retireMeter, async ({ tx, who, input, now, tell }) => {
  const { meter, asset } = await lockMeter(tx, who, input.id)
  if (!canAt(who, 'registers.edit', asset.siteId)) throw notAllowed()
  if (meter.retiredAt) refuse('meter_retired', 'It was taken off already.')
  await tx.update(meters).set({ retiredAt: now }).where(eq(meters.id, meter.id))
  await tell({ kind: 'meter.retire', siteId: asset.siteId, register: 'assets', recordId: asset.id, details: { meter: meter.name } })
  return metersOf(tx, who, asset.id)
})

export const strikeReading = command(contract.strikeReading, async ({ tx, who, input, now, tell }) => {
  const [reading] = await tx.select().from(readings).where(eq(readings.id, input.id)).for('update')
  if (!reading) throw notFound('reading')
  const { meter, asset } = await lockMeter(tx, who, reading.meterId)
  if (!canAt(who, 'orders.edit', asset.siteId)) throw notAllowed()
  if (reading.struckAt) refuse('struck', 'It was struck out already.')
  await tx.update(readings).set({ struckAt: now, struckBy: who.name, struckReason: input.reason }).where(eq(readings.id, reading.id))
  await tell({
    kind: 'meter.strike',
    siteId: asset.siteId,
    register: 'assets',
    recordId: asset.id,
    reason: input.reason,
    details: { meter: meter.name, unit: meter.unit, value: plain(reading.value) },
  })
  return metersOf(tx, who, asset.id)
})
