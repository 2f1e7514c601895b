import ical from 'node-ical'
import type { VEvent } from 'node-ical'
import { rearrange } from '#contract/board'
import { dispatchOrder, keepTime, listCandidates } from '#contract/dispatch'
import { readOrder } from '#contract/orders'
import { readRuleBook, saveRules } from '#contract/setup'
import { acceptVisit, addVendor, declineVisit, proposeTime, readPass, switchVendorStint } from '#contract/vendors'
import { castAt, Client, dispatched, House, orderAt, version } from '../kit'
import type { Cast, Running } from '../kit'

/** A vendor answers by the pass: comes, proposes another time, does not come, or says nothing. */
let house: House
let server: Running
let cast: Cast
let vendor: Client
beforeAll(async () => {
  house = await House.open('answers', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
  vendor = new Client(server.url)
})
afterAll(() => house?.close())

let count = 0
/** An order that a vendor of its own was sent to, with the pass from the mail. */
async function sent() {
  const email = `answers-${++count}@vendor.example`
  const { id: vendorId } = await cast.coordinator.must(addVendor, { name: `Answering ${count}`, email })
  const { id } = await orderAt(cast, 'ready')
  await dispatched(cast, id, { vendorId })
  const { text } = await house.mail(email)
  const token = /\/p\/([\w-]+)/.exec(text)![1]!
  const visit = async () => (await cast.coordinator.must(readOrder, { id })).visits.at(-1)!
  return { id, email, vendorId, token, visit, text }
}
const seen = async (token: string) => ({ token, plannedStart: (await vendor.must(readPass, { token })).plannedStart })
const mailsTo = async (email: string) =>
  (await house.rows<{ subject: string; calendar: string | null }>('SELECT subject, calendar FROM mail WHERE `to` = ? ORDER BY id', [email])).map((row) => ({
    ...row,
    event: row.calendar ? Object.values(ical.sync.parseICS(row.calendar)).find((one): one is VEvent => one?.type === 'VEVENT') : undefined,
  }))

test('asked in the mail, accepted by the pass; the desk is told once, however often it is pressed', async () => {
  const { id, token, visit, text } = await sent()
  expect(text).toContain('Say whether you come')
  expect((await visit()).answer).toBeNull()
  const answered = await vendor.must(acceptVisit, await seen(token))
  expect(answered.answer).toBe('accepted')
  await vendor.must(acceptVisit, await seen(token))
  expect(await visit()).toMatchObject({ answer: 'accepted', silent: false, state: 'planned' })
  const { number } = await cast.coordinator.must(readOrder, { id })
  await cast.coordinator.hears((sentence) => sentence.includes(`comes for ${number}`))
  expect(await house.rows("SELECT 1 FROM event WHERE order_id = ? AND kind = 'vendor.accept'", [id])).toHaveLength(1)
})

test('another time is proposed, told by mail, and taken: the calendar moves, and nobody is asked again', async () => {
  const { id, email, token, visit } = await sent()
  const proposed = { start: '2026-11-24T09:00:00.000Z', end: '2026-11-24T10:30:00.000Z' }
  await vendor.must(proposeTime, { ...(await seen(token)), ...proposed, note: 'Our van is back on Tuesday' })
  const waiting = await visit()
  expect(waiting).toMatchObject({ answer: 'proposed', proposed, answerNote: 'Our van is back on Tuesday' })
  const { number } = await cast.coordinator.must(readOrder, { id })
  const told = await house.mail('maren.quill@skerry.example', ({ subject }) => subject.includes(number) && subject.includes('proposes'))
  expect(told.text).toContain('Our van is back on Tuesday')
  const change = { visitId: waiting.id, version: waiting.version, ...proposed }
  // Past the target of the order: that is said, and asked for a reason, before it is taken.
  const asked = await cast.coordinator.call(rearrange, { siteId: 1, changes: [change] })
  if (asked.status === 422) await cast.coordinator.must(rearrange, { siteId: 1, changes: [change], despite: 'Nobody else can' })
  expect(await visit()).toMatchObject({ answer: 'accepted', proposed: null, plannedStart: proposed.start, plannedEnd: proposed.end })
  await house.mail(email, (mail) => mail.text.includes('You have said that you come.'))
  expect((await mailsTo(email)).at(-1)!.event!.start.toISOString()).toBe(proposed.start)
})

test('a time that is not taken: they are asked again, with a line; moved elsewhere, they are asked for that', async () => {
  const { email, token, visit } = await sent()
  await vendor.must(proposeTime, { ...(await seen(token)), start: '2026-11-24T09:00:00Z', end: '2026-11-24T10:00:00Z' })
  const before = await visit()
  await cast.coordinator.must(keepTime, { visitId: before.id, version: before.version, note: 'The room is booked on Tuesday' })
  expect(await visit()).toMatchObject({ answer: null, proposed: null, plannedStart: before.plannedStart })
  await house.mail(email, ({ text }) => text.includes('keeps to the time'))
  expect((await cast.coordinator.call(keepTime, { visitId: before.id, version: before.version + 1 })).problem.reasons?.[0]?.code).toBe('not_proposed')
  await vendor.must(acceptVisit, await seen(token))
  const old = await seen(token)
  const { version: now } = await visit()
  await cast.coordinator.must(rearrange, {
    siteId: 1,
    changes: [{ visitId: before.id, version: now, start: '2026-11-23T12:00:00Z', end: '2026-11-23T13:00:00Z' }],
    despite: 'Earlier is better',
  })
  expect((await visit()).answer).toBeNull()
  // Nobody accepts a time they have not seen.
  const late = await vendor.call(acceptVisit, old)
  expect([late.status, late.problem.reasons?.[0]?.code]).toEqual([422, 'moved'])
})

test('declined: the visit is off, the order waits at the desk, the calendar is cleared once, and the link says so', async () => {
  const { id, email, token, visit } = await sent()
  await vendor.must(declineVisit, { token, note: 'No crane until Friday' })
  expect(await visit()).toMatchObject({ state: 'recalled', answer: 'declined' })
  expect((await cast.coordinator.must(readOrder, { id })).state).toBe('ready')
  const again = await vendor.call(readPass, { token })
  expect([again.status, again.problem.title]).toEqual([410, 'You declined this job'])
  expect((await vendor.call(declineVisit, { token, note: 'Twice' })).status).toBe(410)
  await house.mail(email, ({ subject }) => subject.includes('is not yours'))
  expect((await mailsTo(email)).map(({ event }) => event?.status)).toEqual(['CONFIRMED', 'CANCELLED'])
  const { number } = await cast.coordinator.must(readOrder, { id })
  await house.mail(
    'maren.quill@skerry.example',
    ({ subject, text }) => subject.includes(`does not come for ${number}`) && text.includes('No crane until Friday'),
  )
})

test('one of two declines: the other still goes, and the order stays sent', async () => {
  const { id, token } = await sent()
  const { siteId: _, ...add } = { siteId: 1, orderId: id, version: await version(cast, id), technicianId: 1 }
  await cast.coordinator.must(rearrange, { siteId: 1, adds: [{ ...add, start: '2026-11-23T14:00:00Z', end: '2026-11-23T15:00:00Z' }], despite: 'Both' })
  await vendor.must(declineVisit, { token, note: 'No time' })
  expect((await cast.coordinator.must(readOrder, { id })).state).toBe('dispatched')
})

test('silence: reminded, then the desk hears of it, each once, though two servers look', async () => {
  const { id, email, visit } = await sent()
  const second = await house.start({ EVRIX_INBOUND_PORT: '' })
  await house.rows("UPDATE visit SET remind_at = '2026-11-23 10:00:00' WHERE order_id = ?", [id])
  await house.mail(email, ({ text }) => text.includes('We have not heard from you yet'))
  expect((await visit()).silent).toBe(false)
  await house.rows("UPDATE visit SET tell_at = '2026-11-23 10:00:00' WHERE order_id = ?", [id])
  const { number } = await cast.coordinator.must(readOrder, { id })
  await cast.coordinator.hears((sentence) => sentence.includes(`has not answered for ${number}`))
  expect((await visit()).silent).toBe(true)
  const kinds = await house.rows<{ kind: string }>("SELECT kind FROM event WHERE order_id = ? AND kind IN ('vendor.remind', 'vendor.silent')", [id])
  expect(kinds.map(({ kind }) => kind)).toEqual(['vendor.remind', 'vendor.silent'])
  await second.stop()
})

test('whoever is there has come, and cannot say otherwise any more', async () => {
  const { token, visit } = await sent()
  const before = await seen(token)
  await vendor.must(switchVendorStint, { token, kind: 'work' })
  expect(await visit()).toMatchObject({ state: 'on_site', answer: 'accepted' })
  for (const [endpoint, more] of [
    [acceptVisit, {}],
    [proposeTime, { start: '2026-11-24T09:00:00Z', end: '2026-11-24T10:00:00Z' }],
  ] as const)
    expect((await vendor.call(endpoint, { ...before, ...more })).problem.reasons?.[0]?.code).toBe('begun')
  expect((await vendor.call(declineVisit, { token, note: 'No' })).problem.reasons?.[0]?.code).toBe('begun')
})

test('a vendor whose insurance has ended is sent for a reason only; those who can be chosen say how they stand', async () => {
  const { id: vendorId } = await cast.coordinator.must(addVendor, { name: 'Lapsed Ltd', email: 'lapsed@vendor.example', insuranceUntil: '2026-11-22' })
  const { id } = await orderAt(cast, 'ready')
  const { vendors } = await cast.coordinator.must(listCandidates, { orderId: id, start: '2026-11-23T12:00:00Z', end: '2026-11-23T13:00:00Z' })
  expect(vendors.find((one) => one.id === vendorId)!.papers[0]).toMatchObject({ what: 'Insurance', stands: 'ended' })
  expect(vendors.some(({ punctuality }) => punctuality.visits > 5 && punctuality.onTime < punctuality.visits)).toBe(true)
  const send = { id, version: await version(cast, id), vendorId, start: '2026-11-23T12:00:00Z', end: '2026-11-23T13:00:00Z' }
  const refused = await cast.coordinator.call(dispatchOrder, send)
  expect([refused.status, refused.problem.reasons?.[0]?.field]).toEqual([422, 'despitePapers'])
  expect((await cast.coordinator.must(readOrder, { id })).visits).toEqual([])
  await cast.coordinator.must(dispatchOrder, { ...send, despitePapers: 'They showed us the new policy' })
  const [told] = await house.rows<{ reason: string }>("SELECT reason FROM event WHERE order_id = ? AND kind = 'order.dispatch'", [id])
  expect(told!.reason).toBe('They showed us the new policy')
})

test('how long a vendor may be silent is the site’s to say, and nobody else answers', async () => {
  const administrator = await new Client(server.url).signIn('wendeline.stroud')
  const book = await administrator.must(readRuleBook, { siteId: 1 })
  expect(book.book.vendors).toEqual({ emergency: { remind: 30, tell: 60 }, other: { remind: 240, tell: 480 } })
  await administrator.must(saveRules, {
    siteId: 1,
    section: 'vendors',
    version: book.versions.vendors,
    content: { emergency: { remind: 10, tell: 20 }, other: { remind: 10, tell: 20 } },
  })
  const { id } = await sent()
  const [row] = await house.rows<{ remind: string; tell: string }>(
    "SELECT date_format(remind_at, '%H:%i') remind, date_format(tell_at, '%H:%i') tell FROM visit WHERE order_id = ?",
    [id],
  )
  expect(row).toEqual({ remind: '10:40', tell: '10:50' })
  const { id: visitId, version: now } = (await cast.coordinator.must(readOrder, { id })).visits[0]!
  expect((await cast.approver.call(keepTime, { visitId, version: now })).status).toBe(403)
  expect((await vendor.call(acceptVisit, { token: 'A'.repeat(43), plannedStart: '2026-11-23T12:00:00Z' })).status).toBe(404)
})
