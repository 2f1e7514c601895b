import { readPortraitMovements, readPortraitTalk, readPortraitUpkeep } from '#contract/portraits'
import { writeComment } from '#contract/requests'
import { castAt, Client, House, report } from '../kit'
import type { Cast, Running } from '../kit'

/** What a Portrait says of plans and dues, meters, stock and conversations, held against the tables. */
let house: House
let server: Running
let cast: Cast
let elsewhere: Client

const one = async <Row>(sql: string, values: unknown[] = []) => (await house.rows<Row>(sql, values))[0]!

beforeAll(async () => {
  house = await House.open('upkeep')
  const { site } = await one<{ site: number }>("SELECT site_id AS site FROM place WHERE code = 'HAT'")
  await house.rows("UPDATE account_role SET site_id = ? WHERE account_id = (SELECT id FROM account WHERE email = 'yusuf.adeyemi-rourke@skerry.example')", [
    site,
  ])
  server = await house.start()
  cast = await castAt(server.url)
  elsewhere = await new Client(server.url).signIn('yusuf.adeyemi-rourke')
})
afterAll(() => house?.close())

test('plans of a machine and of everything in a building, with what is due next and was done last', async () => {
  const plan = await one<{ id: number; asset_id: number; name: string; path: string; tag: string }>(
    'SELECT p.id, p.asset_id, p.name, a.tag, (SELECT path FROM place WHERE id = a.place_id) AS path FROM preventive_plan p JOIN asset a ON a.id = p.asset_id WHERE p.site_id = 1 ORDER BY p.id LIMIT 1',
  )
  const { plans } = await cast.coordinator.must(readPortraitUpkeep, { register: 'assets', id: plan.asset_id })
  const found = plans.find(({ id }) => id === plan.id)!
  const next = await house.rows<{ due_on: string }>(
    "SELECT date_format(due_on, '%Y-%m-%d') AS due_on FROM due WHERE plan_id = ? AND done_at IS NULL ORDER BY due_on LIMIT 1",
    [plan.id],
  )
  const last = await one<{ on: string | null }>("SELECT date_format(max(due_on), '%Y-%m-%d') AS `on` FROM due WHERE plan_id = ? AND done_at IS NOT NULL", [
    plan.id,
  ])
  expect(found).toMatchObject({
    name: plan.name,
    asset: null,
    nextOn: next[0]?.due_on ?? null,
    lastDoneOn: last.on,
    late: (next[0]?.due_on ?? '9') < '2026-11-23',
  })
  const building = Number(plan.path.split('/')[2])
  const whole = await cast.coordinator.must(readPortraitUpkeep, { register: 'places', id: building })
  expect(whole.plans.find(({ id }) => id === plan.id)).toMatchObject({ asset: plan.tag })
  const [counted] = await house.rows<{ n: string }>(
    "SELECT count(*) AS n FROM preventive_plan p JOIN asset a ON a.id = p.asset_id JOIN place l ON l.id = a.place_id WHERE l.path LIKE concat('%/', ?, '/%')",
    [building],
  )
  expect(whole.plans.filter(({ asset }) => asset !== null)).toHaveLength(Math.min(60, Number(counted!.n)))
})

test('the newest reading of each meter, and the one before', async () => {
  const meter = await one<{ id: number; asset_id: number; name: string }>('SELECT id, asset_id, name FROM meter ORDER BY id LIMIT 1')
  await house.rows(
    "INSERT INTO reading (meter_id, value, at, read_by) VALUES (?, 900000.5, '2026-11-21 08:00', 'Bram'), (?, 900012.75, '2026-11-22 08:00', 'Bram')",
    [meter.id, meter.id],
  )
  const newest = async () =>
    (await cast.coordinator.must(readPortraitUpkeep, { register: 'assets', id: meter.asset_id })).meters.find((row) => row.name === meter.name)
  expect(await newest()).toMatchObject({ value: '900012.750', before: '900000.500', at: '2026-11-22T08:00:00.000Z' })
  // What was struck out was never read.
  await house.rows("UPDATE reading SET struck_at = '2026-11-22 09:00', struck_by = 'Bram', struck_reason = 'Wrong' WHERE meter_id = ? AND value = 900012.75", [
    meter.id,
  ])
  expect(await newest()).toMatchObject({ value: '900000.500' })
})

test('stock of a part by store, of a store by part, and the newest movements with the orders they were for', async () => {
  const part = await one<{ part_id: number; store_id: number; n: string }>(
    'SELECT part_id, store_id, count(*) AS n FROM stock_movement GROUP BY part_id, store_id ORDER BY n DESC LIMIT 1',
  )
  const ofPart = await cast.coordinator.must(readPortraitMovements, { register: 'parts', id: part.part_id })
  const levels = await house.rows<{ quantity: string }>('SELECT quantity FROM stock_level WHERE part_id = ?', [part.part_id])
  expect(ofPart.levels.map(({ onHand }) => Number(onHand)).sort()).toEqual(levels.map(({ quantity }) => Number(quantity)).sort())
  expect(ofPart.rows).toHaveLength(
    Math.min(50, Number((await one<{ n: string }>('SELECT count(*) AS n FROM stock_movement WHERE part_id = ?', [part.part_id])).n)),
  )
  expect(ofPart.rows.map(({ at }) => at)).toEqual([...ofPart.rows.map(({ at }) => at)].sort().reverse())
  const issued = ofPart.rows.find(({ kind }) => kind === 'issue')
  if (issued) expect([Number(issued.quantity) < 0, issued.orderNumber]).toEqual([true, expect.stringMatching(/^W-/)])
  const ofStore = await cast.coordinator.must(readPortraitMovements, { register: 'stores', id: part.store_id })
  expect(ofStore.levels.length).toBeGreaterThan(0)
  expect((await cast.coordinator.must(readPortraitMovements, { register: 'assets', id: 1 })).rows).toEqual([])
})

test('what was said about a machine leads to its conversation, newest first; the other site reads none of it', async () => {
  const asset = await one<{ id: number; place_id: number }>("SELECT id, place_id FROM asset WHERE tag = 'CH-1'")
  const { id } = await report(cast, { placeId: asset.place_id, assetId: asset.id, summary: 'Chiller sings' })
  await cast.coordinator.must(writeComment, { id, kind: 'note', text: 'It is the fan, as in spring.' } as never)
  const { rows } = await cast.coordinator.must(readPortraitTalk, { register: 'assets', id: asset.id })
  expect(rows[0]).toMatchObject({ requestId: id, summary: 'Chiller sings', from: 'Maren Quill', text: 'It is the fan, as in spring.' })
  const inPlace = await cast.coordinator.must(readPortraitTalk, { register: 'places', id: asset.place_id })
  expect(inPlace.rows[0]!.id).toBe(rows[0]!.id)
  expect((await elsewhere.call(readPortraitTalk, { register: 'assets', id: asset.id })).status).toBe(404)
  expect((await elsewhere.call(readPortraitUpkeep, { register: 'assets', id: asset.id })).status).toBe(404)
})
