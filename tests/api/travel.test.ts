import { listBestFits, readBoard } from '#contract/board'
import { editPlace, readPlace } from '#contract/places'
import { dropWay, readPlaceWays, sayWay } from '#contract/travel'
import { travelMinutes, waysOf } from '#core/travel'
import { castAt, House, orderAt } from '../kit'
import type { Cast, Running } from '../kit'

/** How long ways take: by where places stand, corrected by hand, and as logged travel has shown. */
let house: House
let server: Running
let cast: Cast
interface Place {
  id: number
  path: string
}
const place = async (code: string): Promise<Place> =>
  (await house.rows<Place & Record<string, unknown>>('SELECT id, path FROM place WHERE code = ?', [code]))[0]!
beforeAll(async () => {
  house = await House.open('travel')
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())
const code = (reply: { problem: { reasons?: { code: string }[] } }) => reply.problem.reasons?.[0]?.code
const buildings = async (): Promise<[Place, Place]> =>
  (await house.rows<Place & Record<string, unknown>>(
    "SELECT id, path, code FROM place WHERE kind = 'building' AND site_id = 1 AND retired_at IS NULL ORDER BY id LIMIT 2",
  )) as unknown as [Place, Place]

test('where a place stands is written in degrees, and refused where it is none', async () => {
  const [one] = await buildings()
  const { version } = await cast.coordinator.must(readPlace, { id: one.id })
  const wrong = await cast.coordinator.call(editPlace, { id: one.id, version, position: 'by the sea' })
  expect([wrong.status, wrong.problem.reasons?.[0]?.field]).toEqual([422, 'position'])
  const { position } = await cast.coordinator.must(editPlace, { id: one.id, version, position: '53.2707, -9.0568' })
  expect(position).toBe('53.2707, -9.0568')
})

test('a way said by hand holds for what lies within, both ways, on the Board and for who fits best; taken back it is reckoned', async () => {
  const [one, other] = await buildings()
  const inside = await Promise.all(
    [one, other].map(
      async ({ path }) => (await house.rows<Place>("SELECT id, path FROM place WHERE path LIKE ? AND kind = 'space' LIMIT 1", [`${path}%`]))[0]!,
    ),
  )
  const [a, b] = inside as [Place, Place]
  const said = await cast.coordinator.must(sayWay, { placeId: one.id, toId: other.id, minutes: 23, both: true })
  expect(said.rows.find(({ toId }) => toId === other.id)).toMatchObject({ minutes: 23, back: 23, source: 'hand', by: 'Maren Quill' })
  // Two orders, one in each building; the Board brings what is known of the ways between their places.
  const orders = [await orderAt(cast, 'dispatched'), await orderAt(cast, 'ready')]
  for (const [index, { id }] of orders.entries()) await house.rows('UPDATE work_order SET place_id = ?, asset_id = NULL WHERE id = ?', [inside[index]!.id, id])
  const { ways } = await cast.coordinator.must(readBoard, { siteId: 1 })
  expect([waysOf(ways)(a.path, b.path), waysOf(ways)(b.path, a.path)]).toEqual([23, 23])
  const { rows } = await cast.coordinator.must(listBestFits, { siteId: 1, orderId: orders[1]!.id })
  expect(rows.find(({ name }) => name === 'Bram Oyelaran')!.because.join(' ')).toMatch(/23 min from W-|At the same place/)
  await cast.coordinator.must(dropWay, { placeId: one.id, toId: other.id })
  expect((await cast.coordinator.must(readPlaceWays, { placeId: other.id })).rows.some(({ toId, source }) => toId === one.id && source === 'hand')).toBe(false)
  const after = await cast.coordinator.must(readBoard, { siteId: 1 })
  expect(waysOf(after.ways)(a.path, b.path)).not.toBe(23)
})

test('between two buildings that stand somewhere it is walked, on one floor by its plan', async () => {
  const [one, other] = await buildings()
  await house.rows("DELETE FROM travel_time WHERE source = 'stints'")
  await house.rows("UPDATE place SET position = '53.2700, -9.0500' WHERE id = ?", [one.id])
  await house.rows("UPDATE place SET position = '53.2750, -9.0500' WHERE id = ?", [other.id])
  const [a, b] = [await place('TID-101'), await place('TID-007')]
  const { ways } = await cast.coordinator.must(readBoard, { siteId: 1 })
  // 556 m, 723 walked, eleven minutes, and two doors.
  expect(waysOf({ ...ways, said: [] })(one.path, other.path)).toBe(11 + 2)
  // The same building, another floor: by the tree.
  expect(waysOf(ways)(a.path, b.path)).toBe(travelMinutes(a.path, b.path))
})

test('logged travel teaches: of the last year, by its median, at most hourly, and never over what somebody said', async () => {
  const learned = await house.rows<{ minutes: number; seen: number }>("SELECT minutes, seen FROM travel_time WHERE source = 'stints'")
  // The server that started has looked at a year of the demo world, and this test has taken what it learned away.
  expect(learned).toEqual([])
  await house.rows("UPDATE setting SET value = '0' WHERE name = 'swept_at'")
  const second = await house.start({ EVRIX_INBOUND_PORT: '' })
  for (let tries = 0; tries < 100; tries++) {
    const rows = await house.rows<{ fromId: number; toId: number; minutes: number; seen: number }>(
      "SELECT from_id AS fromId, to_id AS toId, minutes, seen FROM travel_time WHERE source = 'stints'",
    )
    if (rows.length) {
      expect(rows.every(({ minutes, seen, fromId, toId }) => minutes >= 1 && minutes <= 240 && seen >= 5 && fromId !== toId)).toBe(true)
      const { rows: shown } = await cast.coordinator.must(readPlaceWays, { placeId: rows[0]!.fromId })
      expect(shown.find(({ toId }) => toId === rows[0]!.toId)).toMatchObject({ source: 'stints', minutes: rows[0]!.minutes, seen: rows[0]!.seen })
      await cast.coordinator.must(sayWay, { placeId: rows[0]!.fromId, toId: rows[0]!.toId, minutes: 99 })
      const { rows: over } = await cast.coordinator.must(readPlaceWays, { placeId: rows[0]!.fromId })
      expect(over.filter(({ toId }) => toId === rows[0]!.toId)).toMatchObject([{ source: 'hand', minutes: 99 }])
      return second.stop()
    }
    await new Promise((resolve) => setTimeout(resolve, 200))
  }
  throw new Error('Nothing was learned.')
})

test('what is no way is refused; who does not keep the registers says nothing', async () => {
  const [one, other] = await buildings()
  const inner = await place('TID-101')
  const outer = Number(inner.path.split('/').filter(Boolean)[1])
  expect(code(await cast.coordinator.call(sayWay, { placeId: outer, toId: inner.id, minutes: 3 }))).toBe('same_place')
  expect(code(await cast.coordinator.call(sayWay, { placeId: one.id, toId: 99_999, minutes: 3 }))).toBe('place_unknown')
  expect((await cast.coordinator.call(sayWay, { placeId: one.id, toId: other.id, minutes: 601 })).status).toBe(400)
  expect((await cast.approver.call(sayWay, { placeId: one.id, toId: other.id, minutes: 3 })).status).toBe(403)
  expect((await cast.technician.call(readPlaceWays, { placeId: one.id })).status).toBe(403)
})
