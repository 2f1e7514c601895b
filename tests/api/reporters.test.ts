import { finishJob, switchStint } from '#contract/field'
import { readOrder, readOrderTimeline } from '#contract/orders'
import { sayFixed, sayNotFixed, trackRequest } from '#contract/requests'
import { accepted, castAt, House, orderAt } from '../kit'
import type { Cast, Running } from '../kit'

/** What whoever reported it hears of the work, and what becomes of it when it comes back. */
let house: House
let server: Running
let cast: Cast
beforeAll(async () => {
  house = await House.open('reporters', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

test('on the way, started, done with what was done in plain words; and that it is fixed, once', async () => {
  const { id, visitId, token } = await orderAt(cast, 'dispatched')
  const said = async () => (await cast.anybody.must(trackRequest, { token })).progress.sentence
  await cast.technician.must(switchStint, { visitId, kind: 'travel' })
  expect(await said()).toBe('Somebody is on the way.')
  await cast.technician.must(switchStint, { visitId, kind: 'work' })
  expect(await said()).toBe('Somebody is working on it now.')
  // Fetching a part, and back to it: nobody hears that twice.
  await cast.technician.must(switchStint, { visitId, kind: 'travel' })
  expect(await said()).toBe('Somebody is working on it now.')
  await cast.technician.must(switchStint, { visitId, kind: 'work' })
  expect((await cast.anybody.call(sayFixed, { token })).status).toBe(422)
  await cast.technician.must(finishJob, { visitId, result: 'done', symptom: 'Noisy', cause: 'Wear', fix: 'Replaced', note: 'The old one was a bad make' })
  expect(await said()).toBe('It is done. We replaced what was worn or broken.')
  const page = await cast.anybody.must(sayFixed, { token })
  expect([page.maySayFixed, page.maySayNotFixed]).toEqual([false, true])
  await cast.anybody.must(sayFixed, { token })
  expect(page.steps.map(({ sentence }) => sentence).slice(-3)).toEqual(['Somebody is on the way.', 'Somebody started on it.', 'You said that it is fixed.'])
  expect(JSON.stringify(await cast.anybody.must(trackRequest, { token }))).not.toMatch(/bad make|Wear|Noisy/)
  const { entries } = await cast.coordinator.must(readOrderTimeline, { id })
  expect(entries.filter(({ kind }) => kind === 'request.fixed')).toHaveLength(1)
})

test('words of the desk that are not in our lists are not read out', async () => {
  const { visitId, token } = await orderAt(cast, 'dispatched')
  await cast.technician.must(switchStint, { visitId, kind: 'work' })
  await cast.technician.must(finishJob, { visitId, result: 'done', symptom: 'Noisy', cause: 'Misuse', fix: 'Told them off' })
  expect((await cast.anybody.must(trackRequest, { token })).progress.sentence).toBe('It is done.')
})

test('what is not fixed becomes a call-back, linked to the order after which the fault came back', async () => {
  const { id, token } = await orderAt(cast, 'checked')
  const { number } = await cast.coordinator.must(readOrder, { id })
  const { text } = await house.mail('aoife@reporter.example', (mail) => mail.text.includes('It is done.'))
  expect(text).toMatch(/It is done\. We \w.+\.\nIf it is not, open your page/)
  await cast.anybody.must(sayNotFixed, { token, text: 'It drips again.' })
  const [again] = await house.rows<{ id: number }>("SELECT id FROM request WHERE summary LIKE 'Not fixed:%' ORDER BY id DESC LIMIT 1")
  const orderId = await accepted(cast, again!.id)
  expect(await cast.coordinator.must(readOrder, { id: orderId })).toMatchObject({ kind: 'call_back', callBackOf: { id, number } })
  const { entries } = await cast.coordinator.must(readOrderTimeline, { id: orderId })
  expect(entries.find(({ kind }) => kind === 'order.create')!.details).toMatchObject({ callBackOf: number })
  expect((await cast.coordinator.must(readOrder, { id })).callBackOf).toBeNull()
})
