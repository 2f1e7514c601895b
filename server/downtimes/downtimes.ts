import { randomUUID } from 'node:crypto'
import { and, desc, eq, ne } from 'drizzle-orm'
import * as contract from '#contract/downtimes'
import type { AssetDowntimes, JobDowntimeSaid } from '#contract/downtimes'
import { minutesDown, refuseDowntime } from '#core/downtimes'
import { refuse } from '#core/kit'
import { jobCommand } from '#server/field'
import type { OnSite } from '#server/field'
import { canAt, command, maySee, notAllowed, notFound, query, recordEvent } from '#server/kit'
import type { Actor, Asker, Outgoing, Reader, Tx } from '#server/kit'
import { assets, downtimes, orders } from '../tables'

const SHOWN = 100
const YEAR_MS = 365 * 86_400_000

type AssetRecord = typeof assets.$inferSelect
type Period = { fromAt: Date; untilAt: Date | null; reason: string }
type OfJob = { orderId: number | null; visitId: number | null }

/** Writes a period down, or puts the one of this mark right. @throws Refusal at its field */
async function keep(tx: Tx, actor: Actor, now: Date, asset: AssetRecord, mark: string, period: Period, job: OfJob): Promise<void> {
  const others = await tx
    .select({ fromAt: downtimes.fromAt, untilAt: downtimes.untilAt })
    .from(downtimes)
    .where(and(eq(downtimes.assetId, asset.id), ne(downtimes.mark, mark)))
  refuseDowntime(period, others, now)
  await tx
    .insert(downtimes)
    .values({ assetId: asset.id, mark, ...period, ...job, saidBy: actor.name })
    .onDuplicateKeyUpdate({ set: period })
  const { fromAt, untilAt, reason } = period
  await recordEvent(tx, actor, now, {
    kind: 'downtime.say',
    ...{ siteId: asset.siteId, register: 'assets', recordId: asset.id, ...job, reason: reason || null },
    details: { asset: asset.tag, from: fromAt.toISOString(), until: untilAt?.toISOString() ?? null },
  })
}

/** Locked, so that two who write at once do not write over each other. */
async function lockAsset(tx: Tx, id: number): Promise<AssetRecord | undefined> {
  const [asset] = await tx.select().from(assets).where(eq(assets.id, id)).for('update')
  return asset
}

const periodOf = ({ fromAt, untilAt, reason }: { fromAt: string; untilAt?: string; reason?: string }): Period => ({
  fromAt: new Date(fromAt),
  untilAt: untilAt ? new Date(untilAt) : null,
  reason: reason ?? '',
})

/** Written down by whoever is on the job, of its asset. @throws Refusal */
export async function sayDowntimeOn({ tx, visit, order, at, actor }: OnSite, said: JobDowntimeSaid): Promise<void> {
  const asset = order.assetId === null ? undefined : await lockAsset(tx, order.assetId)
  if (!asset) refuse('no_asset', 'This job is on no asset. Call the desk, and they name it.', 'fromAt')
  const [before] = await tx
    .select()
    .from(downtimes)
    .where(and(eq(downtimes.assetId, asset.id), eq(downtimes.mark, said.mark)))
  const period = periodOf(said)
  // What others wrote down a vendor may end, and change nothing else of it.
  const isOthers = before !== undefined && visit.vendorId !== null && before.visitId !== visit.id
  if (isOthers && before.untilAt) refuse('ended', 'It is written down as back in use already.', 'untilAt')
  if (isOthers && !period.untilAt) refuse('not_yours', 'Somebody else has written that down. Say when it could be used again.', 'untilAt')
  const kept = isOthers ? { ...period, fromAt: before.fromAt, reason: before.reason } : period
  await keep(tx, actor, at, asset, said.mark, kept, { orderId: order.id, visitId: visit.id })
}

export const sayDowntime = jobCommand(contract.sayDowntime, (job) => sayDowntimeOn(job, job.input))

async function decide(tx: Tx, who: Asker, assetId: number): Promise<AssetRecord> {
  const asset = await lockAsset(tx, assetId)
  if (!asset || !maySee(who, asset.siteId)) throw notFound('asset')
  if (!canAt(who, 'orders.edit', asset.siteId)) throw notAllowed()
  return asset
}

export const addDowntime = command(contract.addDowntime, async ({ tx, who, input, now }) => {
  const asset = await decide(tx, who, input.assetId)
  await keep(tx, who, now, asset, randomUUID(), periodOf(input), { orderId: null, visitId: null })
  return downtimesOf(tx, who, asset.id, now)
})

async function lockDowntime(tx: Tx, who: Asker, id: number) {
  const [found] = await tx.select().from(downtimes).where(eq(downtimes.id, id))
  if (!found) throw notFound('downtime')
  const asset = await decide(tx, who, found.assetId)
  const [downtime] = await tx.select().from(downtimes).where(eq(downtimes.id, id)).for('update')
  if (!downtime) throw notFound('downtime')
  return { downtime, asset }
}

export const endDowntime = command(contract.endDowntime, async ({ tx, who, input, now }) => {
  const { downtime, asset } = await lockDowntime(tx, who, input.id)
  if (downtime.untilAt) refuse('ended', 'It is written down as back in use already.', 'untilAt')
  const { mark, fromAt, reason, orderId, visitId } = downtime
  await keep(tx, who, now, asset, mark, { fromAt, untilAt: input.untilAt ? new Date(input.untilAt) : now, reason }, { orderId, visitId })
  return downtimesOf(tx, who, asset.id, now)
})

export const dropDowntime = command(contract.dropDowntime, async ({ tx, who, input, now, tell }) => {
  const { downtime, asset } = await lockDowntime(tx, who, input.id)
  await tx.delete(downtimes).where(eq(downtimes.id, downtime.id))
  await tell({
    kind: 'downtime.takeBack',
    ...{ siteId: asset.siteId, register: 'assets', recordId: asset.id, orderId: downtime.orderId },
    details: { asset: asset.tag, from: downtime.fromAt.toISOString() },
  })
  return downtimesOf(tx, who, asset.id, now)
})

export const readDowntimes = query(contract.readDowntimes, ({ db, who, input, now }) => downtimesOf(db, who, input.assetId, now))

async function downtimesOf(db: Reader, who: Asker, assetId: number, now: Date): Promise<Outgoing<AssetDowntimes>> {
  const [asset] = await db.select({ siteId: assets.siteId }).from(assets).where(eq(assets.id, assetId))
  if (!asset || !maySee(who, asset.siteId)) throw notFound('asset')
  const rows = await db
    .select({ downtime: downtimes, order: { id: orders.id, number: orders.number } })
    .from(downtimes)
    .leftJoin(orders, eq(orders.id, downtimes.orderId))
    .where(eq(downtimes.assetId, assetId))
    .orderBy(desc(downtimes.fromAt))
  return {
    rows: rows.slice(0, SHOWN).map(({ downtime: { id, fromAt, untilAt, reason, saidBy }, order }) => ({ id, fromAt, untilAt, reason, who: saidBy, order })),
    minutesOfYear: minutesDown(
      rows.map(({ downtime }) => downtime),
      new Date(now.getTime() - YEAR_MS),
      now,
    ),
  }
}
