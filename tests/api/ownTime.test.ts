import { correctStint, finishJob, readJob, stopClock, switchStint } from '#contract/field'
import { checkOrder, readOrder, readOrderTimeline } from '#contract/orders'
import { Client, castAt, House, orderAt, version } from '../kit'
import type { Cast, Running } from '../kit'

/** Technicians put their own time right on the same day: with a reason, never over other time of theirs, not once it was checked. */
let house: House
let server: Running
let cast: Cast
beforeAll(async () => {
  house = await House.open('owntime')
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

/** A stint of this morning on a job of its own, put there with the clock moved back. */
async function worked(from: string, to: string) {
  const { id, visitId } = await orderAt(cast, 'dispatched')
  await cast.technician.must(switchStint, { visitId, kind: 'work' })
  const { stints } = await cast.technician.must(stopClock, { visitId })
  const stintId = stints.at(-1)!.id
  await house.rows('UPDATE stint SET start_at = ?, end_at = ?, minutes = 60 WHERE id = ?', [
    at(from).replace('T', ' ').replace('Z', ''),
    at(to).replace('T', ' ').replace('Z', ''),
    stintId,
  ])
  return { id, visitId, stintId }
}
const at = (clock: string) => `2026-11-23T${clock}:00.000Z`
const correct = ({ visitId, stintId }: { visitId: number; stintId: number }, from: string, to: string, who = cast.technician, reason = 'Forgot to press') =>
  who.call(correctStint, { visitId, stintId, startAt: at(from), endAt: at(to), reason })

test('time is put right: minutes and cost follow, and the timeline says by whom, from what, and why', async () => {
  const job = await worked('08:00', '09:00')
  const cost = async () =>
    (
      await house.rows<{ minutes: number; cost_minor: number; per_hour_minor: number }>('SELECT minutes, cost_minor, per_hour_minor FROM stint WHERE id = ?', [
        job.stintId,
      ])
    )[0]!
  const reply = await correct(job, '08:15', '09:45')
  expect(reply.body.stints.find(({ id }) => id === job.stintId)).toMatchObject({ startAt: at('08:15'), endAt: at('09:45'), minutes: 90 })
  const after = await cost()
  expect([after.minutes, after.cost_minor]).toEqual([90, Math.round((after.per_hour_minor * 90) / 60)])
  const { entries } = await cast.coordinator.must(readOrderTimeline, { id: job.id })
  expect(JSON.stringify(entries.find(({ kind }) => kind === 'field.correct'))).toContain('Forgot to press')
  // Sent again with the same times it changes nothing more than the line that says so.
  expect((await correct(job, '08:15', '09:45')).status).toBe(200)
})

test('not over other time of theirs, on another job or on the same; two phones at once leave no overlap', async () => {
  const [one, two] = [await worked('05:00', '05:30'), await worked('06:00', '06:30')]
  const refused = await correct(one, '05:00', '06:15')
  const { number } = await cast.coordinator.must(readOrder, { id: two.id })
  expect(refused.problem.reasons).toEqual([
    expect.objectContaining({ code: 'overlaps', field: 'startAt', sentence: expect.stringContaining(`You were on ${number} from 06:00 to 06:30.`) as string }),
  ])
  const both = await Promise.all([correct(one, '05:10', '05:50'), correct(two, '05:40', '06:20')])
  expect(both.map(({ status }) => status).sort()).toEqual([200, 422])
})

test('what cannot be is refused in words, at its field; nothing is changed', async () => {
  const job = await worked('07:00', '07:20')
  const code = async (...how: Parameters<typeof correct>) => (await correct(...how)).problem.reasons![0]!.code
  expect(await code(job, '07:20', '07:10')).toBe('ends_before')
  expect(await code(job, '07:20', '23:10')).toBe('still_to_come')
  expect((await correct(job, '07:00', '07:10', cast.technician, ' ')).problem.reasons![0]!.field).toBe('reason')
  // Somebody else’s, or on another job, is not there.
  const other = await worked('04:00', '04:20')
  expect((await correct({ ...job, stintId: other.stintId }, '07:00', '07:10')).status).toBe(404)
  const another = await new Client(server.url).signIn('fintan.rosewarne')
  expect((await correct(job, '07:00', '07:10', another)).status).toBe(404)
  expect((await correct(job, '07:00', '07:10', cast.coordinator)).status).toBe(403)
  expect((await cast.technician.must(readJob, { visitId: job.visitId })).stints.at(-1)).toMatchObject({ startAt: at('07:00'), endAt: at('07:20') })
})

test('after the job was left it can still be put right, with its call-out minimum reckoned anew; once it was checked it cannot', async () => {
  await house.rows('UPDATE technician SET call_out_minutes = 120 WHERE id = 1')
  const job = await worked('03:00', '03:30')
  await cast.technician.must(finishJob, { visitId: job.visitId, result: 'done', symptom: 'Leaking', cause: 'Wear', fix: 'Replaced' })
  const minutes = async () => (await house.rows<{ minutes: number }>('SELECT minutes FROM stint WHERE id = ?', [job.stintId]))[0]!.minutes
  expect((await correct(job, '03:00', '03:45')).status).toBe(200)
  expect(await minutes()).toBe(120)
  expect((await correct(job, '01:00', '03:45')).status).toBe(200)
  expect(await minutes()).toBe(165)
  await house.rows('UPDATE technician SET call_out_minutes = 0 WHERE id = 1')
  await cast.coordinator.must(checkOrder, { id: job.id, version: await version(cast, job.id) })
  expect((await correct(job, '03:00', '03:30')).problem.reasons![0]!.code).toBe('checked_already')
})
