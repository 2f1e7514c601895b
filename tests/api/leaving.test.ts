import sharp from 'sharp'
import { addJobPhoto, addSignature, carryJobs, finishJob, readJob, readOutcomeLists, switchStint } from '#contract/field'
import { readAttachment, readOrder, readOrderTimeline } from '#contract/orders'
import { castAt, Client, House, orderAt } from '../kit'
import type { Cast, Running } from '../kit'

/** How a job is left: photos before and after, who signed, another visit with when, somebody else who takes it over. */
let house: House
let server: Running
let cast: Cast
beforeAll(async () => {
  house = await House.open('leaving')
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

const picture = async () =>
  new Blob([
    new Uint8Array(
      await sharp({ create: { width: 60, height: 30, channels: 3, background: '#fff' } })
        .jpeg()
        .toBuffer(),
    ),
  ])
async function begun() {
  const job = await orderAt(cast, 'dispatched')
  await cast.technician.must(switchStint, { visitId: job.visitId, kind: 'work' })
  return job
}
const leftAs = async (id: number) => (await cast.coordinator.must(readOrderTimeline, { id })).entries.find(({ kind }) => kind === 'field.leave')!.details
const fieldsOf = async (reply: Promise<{ problem: { reasons?: { field?: string }[] } }>) => (await reply).problem.reasons?.map(({ field }) => field)

test('photos say how it was found and how it is left, on the phone and on the Sheet', async () => {
  const { id, visitId } = await orderAt(cast, 'dispatched')
  await cast.technician.must(addJobPhoto, { visitId, stage: 'before' }, { file: await picture() })
  await cast.technician.must(addJobPhoto, { visitId }, { file: await picture() })
  const { photos } = await cast.technician.must(addJobPhoto, { visitId, stage: 'after' }, { file: await picture() })
  expect(photos.map(({ stage }) => stage)).toEqual(['before', null, 'after'])
  expect((await cast.coordinator.must(readOrder, { id })).attachments.map(({ stage }) => stage)).toEqual(['before', null, 'after'])
  expect(await fieldsOf(cast.technician.call(addJobPhoto, { visitId, stage: 'during' as never }, { file: await picture() }))).toEqual(['stage'])
})

test('who was there signs with their name; the picture is kept with the job and seen by nobody who may not', async () => {
  const { id, visitId } = await orderAt(cast, 'dispatched')
  expect(await fieldsOf(cast.technician.call(addSignature, { visitId, name: ' ' }, { file: await picture() }))).toEqual(['name'])
  const { signatures, photos } = await cast.technician.must(
    addSignature,
    { visitId, name: 'Nuala Ingleby', happenedAt: '2026-11-23T09:00:00Z' },
    { file: await picture() },
  )
  expect(signatures).toEqual([{ id: expect.any(Number) as number, name: 'Nuala Ingleby', at: '2026-11-23T09:00:00.000Z' }])
  expect(photos).toEqual([])
  expect((await cast.coordinator.must(readOrder, { id })).attachments.map(({ stage }) => stage)).toEqual(['signature'])
  const stranger = await new Client(server.url).signIn('fintan.rosewarne')
  expect((await stranger.call(readAttachment, { id: signatures[0]!.id })).status).toBe(404)
  expect((await stranger.call(addSignature, { visitId, name: 'Somebody' }, { file: await picture() })).status).toBe(404)
})

test('another visit says what is to do and when it is best', async () => {
  const { id, visitId } = await begun()
  await cast.technician.must(finishJob, { visitId, result: 'return', note: 'Fit the new seal', returnAt: '2026-11-25T09:00:00Z' })
  expect(await leftAs(id)).toMatchObject({ result: 'return', returnAt: '2026-11-25T09:00:00.000Z' })
  const { state } = await cast.coordinator.must(readOrder, { id })
  expect(state).toBe('ready')
})

test('handed over to somebody who works there, by name; to nobody else', async () => {
  const { id, visitId } = await begun()
  const { crew } = await cast.technician.must(carryJobs, {})
  expect(crew.map(({ name }) => name)).not.toContain('Bram Oyelaran')
  const sunniva = crew.find(({ name }) => name === 'Sunniva Teague')!
  expect(await fieldsOf(cast.technician.call(finishJob, { visitId, result: 'handed_over', handTo: 999_999 }))).toEqual(['handTo'])
  const [elsewhere] = await house.rows<{ id: number }>(
    'SELECT t.id FROM technician t JOIN account a ON a.id = t.account_id JOIN person p ON p.id = a.person_id WHERE p.site_id <> 1 LIMIT 1',
  )
  if (elsewhere) expect(await fieldsOf(cast.technician.call(finishJob, { visitId, result: 'handed_over', handTo: elsewhere.id }))).toEqual(['handTo'])
  expect((await cast.technician.must(readJob, { visitId })).visitState).toBe('on_site')
  await cast.technician.must(finishJob, { visitId, result: 'handed_over', handTo: sunniva.id, note: 'The key is at the desk' })
  expect(await leftAs(id)).toMatchObject({ handTo: 'Sunniva Teague' })
  const { entries } = await cast.coordinator.must(readOrderTimeline, { id })
  expect(entries.find(({ kind }) => kind === 'order.recall')!.reason).toBe('Handed over to Sunniva Teague. The key is at the desk')
})

test('symptoms, causes and fixes fit the class of the asset', async () => {
  const [all, lift] = [await cast.anybody.must(readOutcomeLists, {}), await cast.anybody.must(readOutcomeLists, { classCode: 'D1010' })]
  expect(lift.symptoms).toContain('Door does not close')
  expect(lift.symptoms).not.toContain('Leaking')
  expect(all.symptoms).toEqual(expect.arrayContaining(['Leaking', ...lift.symptoms]))
})
