import { readFigures } from '#contract/insight'
import { listGroups, listOrderLines } from '#contract/lists'
import {
  addOwnState,
  approveOrder,
  editOrder,
  editOwnState,
  holdOrder,
  listOwnStates,
  readOrder,
  readOrderTimeline,
  recallOrder,
  resumeOrder,
  setOwnState,
  submitOrder,
} from '#contract/orders'
import { readVocabulary } from '#contract/people'
import { accepted, approved, castAt, Client, complete, House, report, version } from '../kit'
import type { Cast, Running } from '../kit'

/** States of a site's own under ours: made in Setup, chosen with a move or afterwards, left behind by the next move, told apart in lists. */
let house: House
let server: Running
let cast: Cast
let admin: Client

beforeAll(async () => {
  house = await House.open('own_states')
  server = await house.start()
  cast = await castAt(server.url)
  admin = await new Client(server.url).signIn('wendeline.stroud')
})
afterAll(() => house?.close())

const made = async (name: string, under: 'ready' | 'on_hold' | 'dispatched' | 'to_approve' = 'on_hold', siteId = 1) =>
  (await admin.must(addOwnState, { siteId, under, name, mark: 'ring' })).rows.find((row) => row.name === name)!
/** An order that is ready. */
async function ready(): Promise<number> {
  const id = await accepted(cast, (await report(cast)).id)
  await approved(cast, id)
  return id
}
const orderOf = (id: number) => cast.coordinator.must(readOrder, { id })
const hold = async (id: number, ownStateId?: number) =>
  cast.coordinator.call(holdOrder, { id, version: await version(cast, id), holdReason: 'access', reason: 'Nobody in', ...(ownStateId ? { ownStateId } : {}) })

test('chosen with the move that leads there, told on the timeline, and left behind by the next move', async () => {
  const keys = await made('Keys are out')
  const id = await ready()
  expect((await hold(id, keys.id)).status).toBe(200)
  expect((await orderOf(id)).ownState).toEqual({ id: keys.id, name: 'Keys are out', mark: 'ring' })
  const { entries } = await cast.coordinator.must(readOrderTimeline, { id })
  expect(JSON.stringify(entries.find(({ kind }) => kind === 'order.hold'))).toContain('Keys are out')
  await cast.coordinator.must(resumeOrder, { id, version: await version(cast, id) })
  expect(await orderOf(id)).toMatchObject({ state: 'ready', ownState: null })
})

test('chosen and taken back afterwards, by who plans orders alone; of two at once one is told', async () => {
  const [window, plant] = [await made('Waits for its window', 'ready'), await made('Plant runs', 'ready')]
  const id = await ready()
  const at = await version(cast, id)
  const replies = await Promise.all([window, plant].map((one) => cast.coordinator.call(setOwnState, { id, version: at, ownStateId: one.id })))
  expect(replies.map(({ status }) => status).sort()).toEqual([200, 409])
  const now = await orderOf(id)
  expect([window.id, plant.id]).toContain(now.ownState!.id)
  expect((await cast.technician.call(setOwnState, { id, version: now.version, ownStateId: null })).status).toBe(403)
  expect((await cast.clerk.call(setOwnState, { id, version: now.version, ownStateId: null })).status).toBe(403)
  await cast.coordinator.must(setOwnState, { id, version: now.version, ownStateId: null })
  expect((await orderOf(id)).ownState).toBeNull()
  const events = await house.rows("SELECT id FROM event WHERE order_id = ? AND kind = 'order.ownState'", [id])
  expect(events).toHaveLength(2)
  // The same again is no change.
  const same = await cast.coordinator.must(setOwnState, { id, version: await version(cast, id), ownStateId: null })
  expect(same.version).toBe(await version(cast, id))
})

test('one under another state, of another site, out of use, or unknown is refused at its field, and nothing is moved', async () => {
  const elsewhere = await house.rows<{ id: number }>("SELECT id FROM site WHERE code = 'MUS'")
  const wrong = [await made('Under ready', 'ready'), await made('At the other site', 'on_hold', elsewhere[0]!.id)]
  const old = await made('Out of use soon')
  await admin.must(editOwnState, { id: old.id, version: 1, retired: true })
  const id = await ready()
  for (const ownStateId of [...wrong.map((one) => one.id), old.id, 999_999]) {
    const reply = await hold(id, ownStateId)
    expect([reply.status, reply.problem.reasons![0]!.field]).toEqual([422, 'ownStateId'])
    const set = await cast.coordinator.call(setOwnState, { id, version: await version(cast, id), ownStateId })
    if (ownStateId !== wrong[0]!.id) expect([set.status, set.problem.reasons![0]!.field]).toEqual([422, 'ownStateId'])
    else await cast.coordinator.must(setOwnState, { id, version: await version(cast, id), ownStateId: null })
  }
  expect((await orderOf(id)).state).toBe('ready')
})

test('every kind of move may carry one: submit, approve, recall', async () => {
  const [asked, agreed] = [await made('Asked by phone', 'to_approve'), await made('Agreed with care', 'ready')]
  const id = await accepted(cast, (await report(cast)).id)
  await cast.coordinator.must(editOrder, { id, version: await version(cast, id), ...complete })
  await cast.coordinator.must(submitOrder, { id, version: await version(cast, id), ownStateId: asked.id })
  expect((await orderOf(id)).ownState!.name).toBe('Asked by phone')
  await cast.approver.must(approveOrder, { id, version: await version(cast, id), ownStateId: agreed.id })
  expect((await orderOf(id)).ownState!.name).toBe('Agreed with care')
  const back = await cast.coordinator.call(recallOrder, { id, version: await version(cast, id) })
  expect([200, 422]).toContain(back.status)
})

test('filtered, shown and brought together in lists', async () => {
  const tide = await made('Spring tide')
  const [one, other] = [await ready(), await ready()]
  await hold(one, tide.id)
  await hold(other)
  const ask = `state=on_hold&ownstate=${tide.id}&columns=number,ownstate`
  const lines = await cast.coordinator.must(listOrderLines, { ask })
  expect(lines.rows.map(({ id, ownstate }) => [id, ownstate])).toEqual([[one, 'Spring tide']])
  const none = await cast.coordinator.must(listOrderLines, { ask: 'state=on_hold&ownstate=none' })
  expect(none.rows.map(({ id }) => id)).toContain(other)
  expect(none.rows.map(({ id }) => id)).not.toContain(one)
  const groups = await cast.coordinator.must(listGroups, { kind: 'orders', ask: 'state=on_hold&group=ownstate' })
  expect(groups.rows.find(({ label }) => label === 'Spring tide')).toMatchObject({ count: 1, value: String(tide.id) })
})

test('in Setup: names are told apart under one state, changed by version, kept out of use; for administrators of the site alone', async () => {
  const row = await made('Twice', 'dispatched')
  const again = await admin.call(addOwnState, { siteId: 1, under: 'dispatched', name: 'TWICE', mark: 'dot' })
  expect([again.status, again.problem.reasons![0]!.field]).toEqual([422, 'name'])
  expect((await admin.call(addOwnState, { siteId: 1, under: 'closed', name: 'Over', mark: 'dot' })).status).toBe(400)
  const renamed = await admin.must(editOwnState, { id: row.id, version: 1, name: 'Once', mark: 'bars' })
  expect(renamed.rows.find(({ id }) => id === row.id)).toMatchObject({ name: 'Once', mark: 'bars', version: 2, orders: 0 })
  expect((await admin.call(editOwnState, { id: row.id, version: 1, name: 'Thrice' })).status).toBe(409)
  await admin.must(editOwnState, { id: row.id, version: 2, retired: true })
  await made('Once', 'dispatched')
  const back = await admin.call(editOwnState, { id: row.id, version: 3, retired: false })
  expect([back.status, back.problem.reasons![0]!.field]).toEqual([422, 'name'])
  expect((await cast.coordinator.call(addOwnState, { siteId: 1, under: 'ready', name: 'x', mark: 'dot' })).status).toBe(403)
  await house.rows(
    "UPDATE account_role SET site_id = (SELECT id FROM site WHERE code = 'MUS') WHERE role = 'administrator' AND account_id = (SELECT id FROM account WHERE email = 'wendeline.stroud@skerry.example')",
  )
  expect((await admin.call(addOwnState, { siteId: 1, under: 'ready', name: 'Elsewhere', mark: 'dot' })).status).toBe(422)
  expect((await admin.call(editOwnState, { id: row.id, version: 3, name: 'Elsewhere' })).status).toBe(404)
  expect((await admin.must(listOwnStates, {})).rows.every(({ siteId }) => siteId !== 1)).toBe(true)
  const { ownStates } = await cast.coordinator.must(readVocabulary, {})
  expect(ownStates.find(({ id }) => id === row.id)).toMatchObject({ retired: true, name: 'Once' })
})

test('at most twelve under one state; two who add the last one at once make one', async () => {
  await house.rows(
    "UPDATE account_role SET site_id = NULL WHERE role = 'administrator' AND account_id = (SELECT id FROM account WHERE email = 'wendeline.stroud@skerry.example')",
  )
  const add = (n: number) => admin.call(addOwnState, { siteId: 1, under: 'draft', name: `Step ${n}`, mark: 'dot' })
  for (let n = 1; n <= 11; n++) expect((await add(n)).status).toBe(200)
  expect((await Promise.all([add(12), add(13)])).map(({ status }) => status).sort()).toEqual([200, 422])
})

test('counted in the figures, each leading to the same orders in a list', async () => {
  const { byOwnState } = await cast.coordinator.must(readFigures, {})
  expect(byOwnState.length).toBeGreaterThan(2)
  for (const row of byOwnState) {
    const { rows } = await cast.coordinator.must(listOrderLines, { ask: `state=${row.under}&ownstate=${row.id}`, limit: 100 })
    expect([row.name, rows.length]).toEqual([row.name, row.orders])
  }
})
