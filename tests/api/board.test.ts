import { readBoard } from '#contract/board'
import { dispatchOrder } from '#contract/dispatch'
import { switchStint } from '#contract/field'
import { savePlan } from '#contract/methods'
import { editOrder, holdOrder, readOrder } from '#contract/orders'
import { addEquipment, addPart, moveStock, reservePart } from '#contract/stock'
import { agreeWindow, offerTimes } from '#contract/windows'
import { Client, castAt, House, orderAt, version } from '../kit'
import type { Cast, Running } from '../kit'

/** People against time, and the work nobody is planned for with what stands between it and dispatch. */
let house: House
let server: Running
let cast: Cast
beforeAll(async () => {
  house = await House.open('board')
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

const board = (more: object = {}) => cast.coordinator.must(readBoard, { siteId: 1, ...more })
const one = async <Row>(sql: string, values: unknown[] = []) => (await house.rows<Row>(sql, values))[0]!
const waitingOf = async (id: number) => (await board()).waiting.find((row) => row.id === id)

test('everybody who works at the site, with shifts of the days shown in the hours of its zone; those away are drawn so', async () => {
  const { people, first, last, days, hours, zone } = await board({ first: '2026-11-23', days: 7 })
  expect([first, last, days, zone]).toEqual(['2026-11-23', '2026-11-29', 7, 'Europe/Dublin'])
  const { n } = await one<{ n: number }>('SELECT count(*) AS n FROM technician t JOIN team e ON e.id = t.team_id WHERE e.site_id = 1')
  expect(people).toHaveLength(Number(n))
  const bram = people.find(({ name }) => name === 'Bram Oyelaran')!
  expect(bram.trades).toEqual(['Electrical'])
  expect(bram.shifts.length).toBeGreaterThanOrEqual(5)
  for (const { shifts } of people)
    for (const { from, until } of shifts) {
      expect(until > from).toBe(true)
      expect(new Date(from).getUTCHours()).toBeGreaterThanOrEqual(hours.from)
    }
  const away = await house.rows<{ name: string }>(
    `SELECT p.name FROM \`leave\` l JOIN technician t ON t.id = l.technician_id JOIN account a ON a.id = t.account_id JOIN person p ON p.id = a.person_id
     WHERE l.from_at < '2026-11-30' AND l.until_at > '2026-11-23'`,
  )
  expect(
    people
      .filter((row) => row.away.length)
      .map(({ name }) => name)
      .sort(),
  ).toEqual([...new Set(away.map(({ name }) => name))].sort())
  // Why somebody is away is not said.
  expect(JSON.stringify(people)).not.toMatch(/reason|why|sick/i)
})

test('a visit is drawn where it is planned, runs with the clock once it is begun, and is marked where it keeps to nothing that was agreed', async () => {
  const { id, visitId } = await orderAt(cast, 'dispatched')
  const mine = async (day?: string) => (await board(day ? { first: day } : {})).people.flatMap((row) => row.visits).find((visit) => visit.id === visitId)
  expect(await mine()).toMatchObject({
    orderId: id,
    state: 'planned',
    from: '2026-11-23T11:30:00.000Z',
    until: '2026-11-23T12:30:00.000Z',
    window: null,
    outside: false,
  })
  expect(await mine('2026-11-24')).toBeUndefined()
  await cast.technician.must(switchStint, { visitId, kind: 'work' })
  expect(await mine()).toMatchObject({ state: 'on_site' })
  // Begun two days ago and not ended: it is drawn up to now.
  await house.rows(
    "UPDATE visit SET planned_start = '2026-11-21 08:00:00', planned_end = '2026-11-21 09:00:00', started_at = '2026-11-21 08:00:00' WHERE id = ?",
    [visitId],
  )
  const running = (await mine())!
  expect(new Date(running.until).getTime()).toBeGreaterThanOrEqual(new Date('2026-11-23T10:30:00Z').getTime())
  const other = await orderAt(cast, 'ready')
  await cast.coordinator.must(agreeWindow, {
    id: other.id,
    version: await version(cast, other.id),
    from: '2026-11-23T14:00:00Z',
    until: '2026-11-23T16:00:00Z',
  })
  await cast.coordinator.must(dispatchOrder, {
    id: other.id,
    version: await version(cast, other.id),
    technicianIds: [1],
    start: '2026-11-23T12:00:00Z',
    end: '2026-11-23T13:00:00Z',
    despiteWindow: 'They rang',
  })
  const { visits } = await cast.coordinator.must(readOrder, { id: other.id })
  const astray = (await board()).people.flatMap((row) => row.visits).find((visit) => visit.id === visits[0]!.id)
  expect(astray).toMatchObject({ outside: true, window: { from: '2026-11-23T14:00:00.000Z' } })
})

test('a vendor who is sent has a row of their own', async () => {
  const { id } = await orderAt(cast, 'ready')
  await cast.coordinator.must(dispatchOrder, { id, version: await version(cast, id), vendorId: 1, start: '2026-11-23T12:00:00Z', end: '2026-11-23T13:00:00Z' })
  expect((await board()).vendors.find((row) => row.id === 1)!.visits.map(({ orderId }) => orderId)).toContain(id)
})

test('what nobody is planned for waits, with the same between it and dispatch as on its Sheet', async () => {
  const { id } = await orderAt(cast, 'ready')
  expect(await waitingOf(id)).toMatchObject({ ready: [], trade: expect.any(String) as string })
  const part = await cast.coordinator.must(addPart, { code: 'BRD-1', name: 'Board part', unit: 'pc' })
  const tower = await cast.coordinator.must(addEquipment, { tag: 'BRD-T', name: 'Board tower', siteId: 1 })
  await cast.coordinator.must(savePlan, {
    orderId: id,
    version: 0,
    parts: [{ partId: part.id, quantity: '2' }],
    tools: [{ text: 'Tower', equipmentId: tower.id }],
    hazards: [{ hazard: 'Height', control: 'Rope', permit: 'height' }],
  })
  await cast.coordinator.must(offerTimes, {
    orderId: id,
    name: 'Nora Vale',
    email: 'nora@reporter.example',
    times: [{ from: '2026-11-25T09:00:00Z', until: '2026-11-25T12:00:00Z' }],
  })
  const codes = async () => (await waitingOf(id))!.ready.map(({ code }) => code)
  expect(await codes()).toEqual(['missing', 'equipment', 'permit', 'access'])
  const store = (await one<{ id: number }>('SELECT id FROM store WHERE site_id = 1 ORDER BY id LIMIT 1')).id
  await cast.coordinator.must(moveStock, { act: 'receipt', storeId: store, partId: part.id, quantity: '2', unitCostMinor: 100 })
  expect(await codes()).toEqual(['unkept', 'equipment', 'permit', 'access'])
  await cast.coordinator.must(reservePart, { orderId: id, partId: part.id, storeId: store, quantity: '2' })
  await cast.coordinator.must(agreeWindow, { id, version: await version(cast, id), from: '2026-11-25T09:00:00Z', until: '2026-11-25T12:00:00Z' })
  expect(await codes()).toEqual(['equipment', 'permit'])
  // On hold it waits as well; sent, it waits no more.
  await cast.coordinator.must(holdOrder, { id, version: await version(cast, id), holdReason: 'access', reason: 'Locked' })
  expect(await waitingOf(id)).toMatchObject({ state: 'on_hold', holdReason: 'access' })
  const sent = await orderAt(cast, 'dispatched')
  expect(await waitingOf(sent.id)).toBeUndefined()
  await cast.coordinator.must(holdOrder, { id: sent.id, version: await version(cast, sent.id), holdReason: 'access', reason: 'Locked' })
  expect(await waitingOf(sent.id)).toMatchObject({ state: 'on_hold' })
  expect((await board()).people.flatMap((row) => row.visits).filter(({ orderId }) => orderId === sent.id)).toEqual([])
})

test('what waits stands by its target; of what is on hold, what was left of it when the clock stopped is left still', async () => {
  const [held, past, later] = [await orderAt(cast, 'ready'), await orderAt(cast, 'ready'), await orderAt(cast, 'ready')].map(({ id }) => id) as [
    number,
    number,
    number,
  ]
  await cast.coordinator.must(holdOrder, { id: held, version: await version(cast, held), holdReason: 'access', reason: 'Locked' })
  // A day was left of it for nine days, the others are due a minute ago and in two days.
  await house.rows("UPDATE work_order SET clock_stopped_at = '2026-11-14 10:30', completion_due_at = '2026-11-15 10:30' WHERE id = ?", [held])
  await house.rows("UPDATE work_order SET completion_due_at = '2026-11-23 10:29' WHERE id = ?", [past])
  await house.rows("UPDATE work_order SET completion_due_at = '2026-11-25 10:30' WHERE id = ?", [later])
  const order = (await board()).waiting.map(({ id }) => id).filter((id) => [held, past, later].includes(id))
  expect(order).toEqual([past, held, later])
  // Stopped when it was past already, it is past still.
  await house.rows("UPDATE work_order SET clock_stopped_at = '2026-11-16 10:30' WHERE id = ?", [held])
  expect((await board()).waiting.map(({ id }) => id).filter((id) => [held, past, later].includes(id))).toEqual([held, past, later])
})

test('a warranty with somebody else than who would be sent stands between it and dispatch; past its last day it does not', async () => {
  const asset = await one<{ id: number; vendor: number }>(
    'SELECT id, vendor_id AS vendor FROM asset WHERE site_id = 1 AND vendor_id IS NOT NULL AND retired_at IS NULL LIMIT 1',
  )
  await house.rows("UPDATE asset SET warranty_until = '2027-03-05' WHERE id = ?", [asset.id])
  const { id } = await orderAt(cast, 'draft')
  await cast.coordinator.must(editOrder, { id, version: await version(cast, id), assetId: asset.id })
  await house.rows("UPDATE work_order SET state = 'ready' WHERE id = ?", [id])
  const warranty = async () => (await waitingOf(id))!.ready.filter(({ code }) => code === 'warranty').length
  expect(await warranty()).toBe(1)
  await house.rows("UPDATE asset SET warranty_until = '2026-11-22' WHERE id = ?", [asset.id])
  expect(await warranty()).toBe(0)
})

test('who is of another site, or no desk, sees none of it; a day that is none is refused', async () => {
  expect((await cast.anybody.call(readBoard, { siteId: 1 })).status).toBe(401)
  expect((await cast.technician.call(readBoard, { siteId: 1 })).status).toBe(403)
  expect((await cast.coordinator.call(readBoard, { siteId: 1, first: '2026-02-30' })).status).toBe(400)
  expect((await cast.coordinator.call(readBoard, { siteId: 1, days: 2 })).status).toBe(400)
  await house.rows("UPDATE account_role SET site_id = (SELECT id FROM site WHERE code = 'MUS') WHERE account_id = 1")
  expect((await cast.coordinator.call(readBoard, { siteId: 1 })).status).toBe(422)
  await house.rows('UPDATE account_role SET site_id = NULL WHERE account_id = 1')
  const mussel = await new Client(server.url).signIn('maren.quill')
  const { id } = await one<{ id: number }>("SELECT id FROM site WHERE code = 'MUS'")
  const away = await mussel.must(readBoard, { siteId: id })
  expect(away.people.map(({ name }) => name)).not.toContain('Bram Oyelaran')
})
