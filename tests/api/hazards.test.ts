import { finishJob, holdPermit, readHazards, readJob, switchStint } from '#contract/field'
import type { JobSheet } from '#contract/field'
import { readOrderPlan, savePlan } from '#contract/methods'
import { readOrderTimeline } from '#contract/orders'
import { hazardsAsRead } from '#core/field'
import type { HazardLine } from '#core/methods'
import { Client, castAt, House, orderAt } from '../kit'
import type { Cast, Running } from '../kit'

/** Dangerous work begins once its hazards were read and its permits are held; whatever else a visit takes does not wait for it. */
let house: House
let server: Running
let cast: Cast
beforeAll(async () => {
  house = await House.open('hazards')
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

const FAN: HazardLine = { hazard: 'Turning fan', control: 'Isolate', permit: 'isolation' }
const WATER: HazardLine = { hazard: 'Hot water', control: 'Let it cool', permit: null }
async function dangerous(hazards: HazardLine[]) {
  const { id, visitId } = await orderAt(cast, 'dispatched')
  await reworded(id, hazards)
  return { id, visitId }
}
async function reworded(id: number, hazards: HazardLine[]): Promise<void> {
  const { version } = await cast.coordinator.must(readOrderPlan, { orderId: id })
  await cast.coordinator.must(savePlan, { orderId: id, version, hazards })
}
const codes = async (reply: Promise<{ problem: { reasons?: { code: string }[] } }>) => (await reply).problem.reasons?.map(({ code }) => code)
const work = (visitId: number, more: object = {}) => cast.technician.call(switchStint, { visitId, kind: 'work', ...more })
const read = ({ visitId, hazards }: Pick<JobSheet, 'visitId' | 'hazards'>) => ({ visitId, read: hazardsAsRead(hazards) })
const permit = (visitId: number, from: string, until: string) => ({
  ...{ visitId, kind: 'isolation' as const, number: 'P-4471' },
  ...{ fromAt: `2026-11-23T${from}:00Z`, untilAt: `2026-11-23T${until}:00Z` },
})

test('read, then the permit, then the work; on the way nobody waits for either', async () => {
  const { id, visitId } = await dangerous([FAN, WATER])
  await cast.technician.must(switchStint, { visitId, kind: 'travel' })
  expect(await codes(work(visitId))).toEqual(['hazards_unread'])
  const sheet = await cast.technician.must(readJob, { visitId })
  expect([sheet.hazards, sheet.hazardsReadAt]).toEqual([[FAN, WATER], null])
  expect((await cast.technician.must(readHazards, read(sheet))).hazardsReadAt).not.toBeNull()
  expect(await codes(work(visitId))).toEqual(['permit_missing'])
  await cast.technician.must(holdPermit, permit(visitId, '08:00', '10:00'))
  expect(await codes(work(visitId))).toEqual(['permit_missing'])
  expect(await codes(cast.technician.call(holdPermit, permit(visitId, '12:00', '10:00')))).toEqual(['date.greater'])
  const held = await cast.technician.must(holdPermit, permit(visitId, '10:00', '18:00'))
  expect(held.permits.map(({ number, fromAt }) => [number, fromAt])).toEqual([
    ['P-4471', '2026-11-23T08:00:00.000Z'],
    ['P-4471', '2026-11-23T10:00:00.000Z'],
  ])
  expect((await work(visitId)).status).toBe(200)
  const { entries } = await cast.coordinator.must(readOrderTimeline, { id })
  expect(entries.map(({ kind }) => kind)).toEqual(expect.arrayContaining(['field.hazards', 'field.permit']))
  await cast.technician.must(finishJob, { visitId, result: 'done', symptom: 'Noisy', cause: 'Wear', fix: 'Cleaned' })
})

test('hazards that change are read anew, and what was read on a phone before they did is not taken for it', async () => {
  const { id, visitId } = await dangerous([WATER])
  const sheet = await cast.technician.must(readJob, { visitId })
  await cast.technician.must(readHazards, read(sheet))
  await reworded(id, [{ ...WATER, control: 'Let it cool for an hour' }])
  expect((await cast.technician.must(readJob, { visitId })).hazardsReadAt).toBeNull()
  expect(await codes(work(visitId))).toEqual(['hazards_unread'])
  expect(await codes(cast.technician.call(readHazards, read(sheet)))).toEqual(['hazards_changed'])
})

test('what was recorded without signal is judged by its moment: read and held before the work began', async () => {
  const { visitId } = await dangerous([FAN])
  const sheet = await cast.technician.must(readJob, { visitId })
  await cast.technician.must(readHazards, { ...read(sheet), happenedAt: '2026-11-23T06:00:00Z' })
  await cast.technician.must(holdPermit, { ...permit(visitId, '06:00', '07:00'), happenedAt: '2026-11-23T06:05:00Z' })
  expect(await codes(work(visitId, { happenedAt: '2026-11-23T07:00:00Z' }))).toEqual(['permit_missing'])
  const begun = await cast.technician.must(switchStint, { visitId, kind: 'work', happenedAt: '2026-11-23T06:59:00Z' })
  expect([begun.hazardsReadAt, begun.running?.startAt]).toEqual(['2026-11-23T06:00:00.000Z', '2026-11-23T06:59:00.000Z'])
  await cast.technician.must(finishJob, { visitId, result: 'return', happenedAt: '2026-11-23T07:20:00Z' })
  expect(await codes(cast.technician.call(holdPermit, permit(visitId, '08:00', '09:00')))).toEqual(['visit_over'])
})

test('nobody else reads or holds anything on it', async () => {
  const { visitId } = await dangerous([FAN])
  const stranger = await new Client(server.url).signIn('fintan.rosewarne')
  const sheet = await cast.technician.must(readJob, { visitId })
  expect((await stranger.call(readHazards, read(sheet))).status).toBe(404)
  expect((await stranger.call(holdPermit, permit(visitId, '10:00', '18:00'))).status).toBe(404)
})
