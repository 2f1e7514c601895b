import { dispatchOrder } from '#contract/dispatch'
import { readJob } from '#contract/field'
import { cancelOrder, readOrder, readOrderTimeline } from '#contract/orders'
import { followRequest, trackRequest } from '#contract/requests'
import { agreeWindow, chooseTime, listTrackedTimes, offerTimes, readOrderWindows, readTimes, sayNoneFits, withdrawTimes } from '#contract/windows'
import { castAt, Client, House, orderAt, report, version } from '../kit'
import type { Cast, Running } from '../kit'

/** When whoever does it is let in: offered, chosen by mail link or on the private page, and kept by the order. */
let house: House
let server: Running
let cast: Cast
beforeAll(async () => {
  house = await House.open('windows', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

const at = (day: number, hour: number) => new Date(Date.UTC(2026, 10, day, hour)).toISOString()
const morning = { from: at(25, 9), until: at(25, 12) }
const noon = { from: at(25, 13), until: at(25, 16) }
let people = 0
/** Offered to somebody of their own, whose link comes by mail. */
async function offered(orderId: number, times = [morning, noon], note?: string) {
  const email = `lets-in-${++people}@reporter.example`
  const stands = await cast.coordinator.must(offerTimes, { orderId, name: `Person ${people}`, email, times, ...(note ? { note } : {}) })
  const mail = await house.mail(email)
  return { email, stands, mail, token: /\/w\/([\w-]{43})/.exec(mail.text)![1]! }
}
const reason = (reply: { problem: { reasons?: { code: string; field?: string; sentence: string }[] } }) => reply.problem.reasons![0]!
const windowOf = async (id: number) => (await cast.coordinator.must(readOrder, { id })).window

describe('times offered', () => {
  test('come by mail; one is chosen by its link, the order keeps it, and whoever asked hears of it', async () => {
    const { id } = await orderAt(cast, 'ready')
    const { mail, token, email } = await offered(id, [noon, morning], 'It takes an hour')
    expect(mail.text).toContain('Wed 25 Nov, 09:00 to 12:00')
    expect(mail.text).toContain('It takes an hour')
    const page = await cast.anybody.must(readTimes, { token })
    expect(page).toMatchObject({
      state: 'open',
      over: null,
      times: [
        { ...morning, gone: false },
        { ...noon, gone: false },
      ],
    })
    expect(JSON.stringify(page)).not.toMatch(/minor|estimate|petra/i)
    const chosen = await cast.anybody.must(chooseTime, { token, from: morning.from, note: 'Ring twice' })
    expect(chosen).toMatchObject({ state: 'chosen', chosen: morning, answer: 'Ring twice' })
    expect(await windowOf(id)).toEqual({ ...morning, with: `Person ${people}` })
    await cast.coordinator.hears((sentence) => sentence.includes(`Person ${people} chose Wed 25 Nov, 09:00 to 12:00`) && sentence.includes('Ring twice'))
    const { entries } = await cast.coordinator.must(readOrderTimeline, { id })
    expect(entries.map(({ kind }) => kind)).toEqual(expect.arrayContaining(['window.offer', 'window.choose']))
    const { offers } = await cast.coordinator.must(readOrderWindows, { orderId: id })
    expect(offers[0]).toMatchObject({ email, state: 'chosen', chosen: morning, answer: 'Ring twice' })
    // Until somebody is planned for it, another can be chosen.
    await cast.anybody.must(chooseTime, { token, from: noon.from })
    expect(await windowOf(id)).toMatchObject(noon)
  })

  test('one that was sent twice is chosen once; what is not offered, or not a link, chooses nothing', async () => {
    const { id } = await orderAt(cast, 'ready')
    const { token } = await offered(id)
    const key = crypto.randomUUID()
    const twice = await Promise.all([1, 2].map(() => cast.anybody.call(chooseTime, { token, from: noon.from }, { key })))
    expect(twice.map(({ status }) => status)).toEqual([200, 200])
    expect((await house.rows("SELECT id FROM event WHERE kind = 'window.choose' AND order_id = ?", [id])).length).toBe(1)
    expect(reason(await cast.anybody.call(chooseTime, { token, from: at(26, 9) }))).toMatchObject({ code: 'unknown_time', field: 'from' })
    expect((await cast.anybody.call(readTimes, { token: 'x'.repeat(43) })).status).toBe(404)
    expect((await cast.anybody.call(readTimes, { token: 'short' })).status).toBe(400)
  })

  test('none of them fits: the desk hears what would, and what had been chosen of them is agreed no more', async () => {
    const { id } = await orderAt(cast, 'ready')
    const { token } = await offered(id)
    await cast.anybody.must(chooseTime, { token, from: morning.from })
    expect((await cast.anybody.call(sayNoneFits, { token, note: '' })).status).toBe(400)
    const said = await cast.anybody.must(sayNoneFits, { token, note: 'Only after five' })
    expect(said).toMatchObject({ state: 'none_fits', chosen: null, answer: 'Only after five' })
    expect(await windowOf(id)).toBeNull()
    await cast.coordinator.hears((sentence) => sentence.includes('None of the times fits') && sentence.includes('Only after five'))
  })

  test('offered anew: the first link says so, and only the latest is open', async () => {
    const { id } = await orderAt(cast, 'ready')
    const first = await offered(id)
    const second = await offered(id)
    expect((await cast.anybody.must(readTimes, { token: first.token })).over).toContain('taken these times back')
    expect((await cast.anybody.call(chooseTime, { token: first.token, from: morning.from })).status).toBe(422)
    await house.mail(first.email, ({ subject }) => subject.includes('No time needed any more'))
    expect(second.stands.offers.map(({ state }) => state)).toEqual(['open', 'withdrawn'])
    const [open] = second.stands.offers
    const stands = await cast.coordinator.must(withdrawTimes, { id: open!.id, version: open!.version })
    expect(stands.offers[0]!.state).toBe('withdrawn')
    expect((await cast.coordinator.call(withdrawTimes, { id: open!.id, version: open!.version })).status).toBe(409)
    expect((await cast.coordinator.call(withdrawTimes, { id: open!.id, version: open!.version + 1 })).status).toBe(422)
  })

  test('what cannot be offered says why, at which time, and offers nothing', async () => {
    const { id } = await orderAt(cast, 'ready')
    const offer = (times: object[], more: object = {}) =>
      cast.coordinator.call(offerTimes, { orderId: id, name: 'Nora Vale', email: 'nora@reporter.example', times, ...more })
    expect(reason(await offer([morning, { from: at(20, 9), until: at(20, 12) }]))).toMatchObject({ code: 'in_the_past', field: 'times.1' })
    expect(reason(await offer([morning, morning]))).toMatchObject({ code: 'twice', field: 'times.1' })
    expect(reason(await offer([{ from: morning.until, until: morning.from }]))).toMatchObject({ code: 'ends_before' })
    for (const bad of [[], Array.from({ length: 9 }, (_, n) => ({ from: at(25, n), until: at(25, n + 1) }))]) expect((await offer(bad)).status).toBe(400)
    for (const more of [{ email: 'nobody' }, { name: 'See https://bad.example' }]) expect((await offer([morning], more)).status).toBe(400)
    expect((await cast.coordinator.must(readOrderWindows, { orderId: id })).offers).toEqual([])
  })

  test('an order that is over needs no time; who may not plan, or is of another site, offers none', async () => {
    const { id } = await orderAt(cast, 'ready')
    const { token } = await offered(id)
    expect((await cast.technician.call(offerTimes, { orderId: id, name: 'X', email: 'x@y.example', times: [morning] })).status).toBe(403)
    const stranger = await new Client(server.url).signIn('osric.vane')
    expect([403, 404]).toContain((await stranger.call(offerTimes, { orderId: id, name: 'X', email: 'x@y.example', times: [morning] })).status)
    await house.rows("UPDATE account_role SET site_id = (SELECT id FROM site WHERE code = 'MUS') WHERE account_id = 1")
    expect((await cast.coordinator.call(readOrderWindows, { orderId: id })).status).toBe(404)
    expect((await cast.coordinator.call(offerTimes, { orderId: id, name: 'X', email: 'x@y.example', times: [morning] })).status).toBe(404)
    await house.rows('UPDATE account_role SET site_id = NULL WHERE account_id = 1')
    await cast.coordinator.must(cancelOrder, { id, version: await version(cast, id), reason: 'Not needed' })
    expect((await cast.anybody.must(readTimes, { token })).over).toBe('No time is needed any more.')
    expect((await cast.anybody.call(chooseTime, { token, from: morning.from })).status).toBe(422)
    expect(reason(await cast.coordinator.call(offerTimes, { orderId: id, name: 'X', email: 'x@y.example', times: [morning] })).code).toBe('order_over')
  })
})

describe('on the private page of the reporter', () => {
  test('stand the times offered to them, and to nobody who only follows', async () => {
    const { id, token, requestId } = await orderAt(cast, 'ready')
    const { whom, proposed } = await cast.coordinator.must(readOrderWindows, { orderId: id })
    expect(whom).toEqual([{ name: 'Aoife Ashdown', email: 'aoife@reporter.example' }])
    expect(proposed.length).toBe(4)
    await cast.coordinator.must(offerTimes, { orderId: id, ...whom[0]!, times: proposed })
    const { rows } = await cast.anybody.must(listTrackedTimes, { token })
    expect(rows).toHaveLength(1)
    await cast.anybody.must(chooseTime, { token: rows[0]!.token, from: proposed[2]!.from })
    expect(await windowOf(id)).toMatchObject(proposed[2]!)
    expect((await cast.anybody.must(trackRequest, { token })).steps.map(({ sentence }) => sentence)).toEqual(
      expect.arrayContaining(['We asked when somebody can let us in.', expect.stringContaining('A time was agreed: ')]),
    )
    await cast.anybody.must(followRequest, { site: 'SKE', id: requestId, email: 'follower@reporter.example', name: 'Follower' })
    const mail = await house.mail('follower@reporter.example')
    const follower = /\/t\/([\w-]{43})/.exec(mail.text)![1]!
    expect((await cast.anybody.must(listTrackedTimes, { token: follower })).rows).toEqual([])
    // Nor does another request of theirs show it.
    expect((await cast.anybody.must(listTrackedTimes, { token: (await report(cast)).token })).rows).toEqual([])
  })
})

describe('the time agreed', () => {
  test('is noted by the desk and taken off again; half a time and a stale one are refused', async () => {
    const { id } = await orderAt(cast, 'ready')
    const agree = async (from: string | null, until: string | null, at?: number) =>
      cast.coordinator.call(agreeWindow, { id, version: at ?? (await version(cast, id)), from, until, with: 'The porter' })
    expect(reason(await agree(morning.from, null))).toMatchObject({ code: 'half', field: 'until' })
    expect(reason(await agree(at(20, 9), at(20, 12)))).toMatchObject({ code: 'in_the_past' })
    expect((await agree(morning.from, morning.until, 1)).status).toBe(409)
    expect((await agree(morning.from, morning.until)).status).toBe(200)
    expect(await windowOf(id)).toEqual({ ...morning, with: 'The porter' })
    expect((await agree(null, null)).status).toBe(200)
    expect(await windowOf(id)).toBeNull()
  })

  test('is kept to when somebody is sent, or it is said why not; who goes sees it, and the link says whom to call', async () => {
    const { id } = await orderAt(cast, 'ready')
    const { token } = await offered(id)
    await cast.anybody.must(chooseTime, { token, from: morning.from })
    const send = async (start: string, more: object = {}) =>
      cast.coordinator.call(dispatchOrder, { id, version: await version(cast, id), technicianIds: [1], start, end: at(25, 18), ...more })
    const refused = await send(noon.from)
    expect(reason(refused)).toMatchObject({ code: 'outside_window', field: 'despiteWindow' })
    expect(reason(refused).sentence).toContain('Wed 25 Nov, 09:00 to 12:00')
    expect((await cast.coordinator.must(readOrder, { id })).state).toBe('ready')
    expect((await send(at(25, 10))).status).toBe(200)
    const { visits } = await cast.coordinator.must(readOrder, { id })
    expect((await cast.technician.must(readJob, { visitId: visits[0]!.id })).window).toMatchObject(morning)
    const mail = await house.mail('bram.oyelaran@skerry.example', ({ text }) => text.includes('Agreed: Wed 25 Nov, 09:00 to 12:00'))
    expect(mail.text).toContain(`with Person ${people}`)
    expect((await cast.anybody.must(readTimes, { token })).over).toContain('Call the desk')
    expect((await cast.anybody.call(chooseTime, { token, from: noon.from })).status).toBe(422)
    const other = await orderAt(cast, 'ready')
    await cast.coordinator.must(agreeWindow, { id: other.id, version: await version(cast, other.id), ...morning })
    await cast.coordinator.must(dispatchOrder, {
      id: other.id,
      version: await version(cast, other.id),
      technicianIds: [1],
      start: noon.from,
      end: noon.until,
      despiteWindow: 'They rang: the afternoon is better',
    })
    const { entries } = await cast.coordinator.must(readOrderTimeline, { id: other.id })
    expect(entries.find(({ kind }) => kind === 'order.dispatch')?.reason).toBe('They rang: the afternoon is better')
  })
})
