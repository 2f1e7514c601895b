import { eq } from 'drizzle-orm'
import * as contract from '#contract/meters'
import type { JobReading } from '#contract/meters'
import { Refusal, refuse } from '#core/kit'
import { doubtOf } from '#core/meters'
import type { ReadingAnswer } from '#core/meters'
import { jobCommand } from '#server/field'
import type { OnSite } from '#server/field'
import { canAt, command, notAllowed, recordEvent } from '#server/kit'
import type { Actor, Tx } from '#server/kit'
import { assets, meters, readings } from '../tables'
import { lockMeter, metersOf } from './meters'
import { metersBelow, newestReadings, plain } from './records'

interface Taken {
  value: string
  answer?: ReadingAnswer
  at: Date
  order: { id: number; visitId: number } | null
}

/** Keeps what a meter showed; what is not like the others is asked about first. @throws Refusal */
async function keepReading(tx: Tx, actor: Actor, meterId: number, { value, answer, at, order }: Taken): Promise<void> {
  // One after the other: what is asked of a reading depends on the one before it.
  const [found] = await tx.select({ meter: meters, asset: assets }).from(meters).innerJoin(assets, eq(assets.id, meters.assetId)).where(eq(meters.id, meterId)).for('update') // prettier-ignore
  const { meter, asset } = found!
  if (meter.rollsAt !== null && Number(value) >= Number(meter.rollsAt))
    refuse('reading_too_high', `It is at nought again at ${plain(meter.rollsAt)}: it cannot show that.`, 'value')
  const before = (await newestReadings(tx, [meterId], 60)).map((one) => ({ ...one, value: plain(one.value) }))
  const doubt = doubtOf(before, { value, at, answer: answer ?? null }, meter)
  if (doubt) throw new Refusal([{ code: doubt.code, sentence: doubt.sentence, field: 'value' }])
  const anew = answer === 'exchanged'
  await tx.insert(readings).values({ meterId, value, at, anew, readBy: actor.name, orderId: order?.id ?? null, visitId: order?.visitId ?? null })
  await recordEvent(tx, actor, at, {
    kind: 'meter.read',
    siteId: asset.siteId,
    register: 'assets',
    recordId: asset.id,
    orderId: order?.id ?? null,
    visitId: order?.visitId ?? null,
    details: { meter: meter.name, unit: meter.unit, value, ...(answer ? { answer } : {}) },
  })
}

export const takeReading = command(contract.takeReading, async ({ tx, who, input, now }) => {
  const { meter, asset } = await lockMeter(tx, who, input.id)
  if (!canAt(who, 'orders.edit', asset.siteId)) throw notAllowed()
  if (meter.retiredAt) refuse('meter_retired', 'It was taken off its asset.', 'value')
  const at = input.at ? new Date(input.at) : now
  if (at > now) refuse('in_future', 'Say when it was read: now, or earlier.', 'at')
  await keepReading(tx, who, meter.id, { value: input.value, answer: input.answer, at, order: null })
  return metersOf(tx, who, asset.id)
})

/** Read by whoever is on the job, of its asset or a part of that. @throws Refusal */
export async function addReadingOn({ tx, visit, order, at, actor }: OnSite, { meterId, value, answer }: JobReading): Promise<void> {
  const mine = order.assetId === null ? [] : await metersBelow(tx, order.assetId)
  if (!mine.some(({ meter }) => meter.id === meterId)) refuse('meter_unknown', 'That meter is not on the asset of this job any more.', 'meterId')
  await keepReading(tx, actor, meterId, { value, answer, at, order: { id: order.id, visitId: visit.id } })
}

export const addReading = jobCommand(contract.addReading, (job) => addReadingOn(job, job.input))
