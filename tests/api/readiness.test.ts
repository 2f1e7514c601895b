import { dispatchOrder } from '#contract/dispatch'
import { finishJob, switchStint } from '#contract/field'
import { addMethod, applyMethods, writeMethod } from '#contract/methods'
import { readOrder } from '#contract/orders'
import { readPortraitTimeline } from '#contract/portraits'
import { listReadiness, readReadiness, sayReadiness } from '#contract/readiness'
import { castAt, Client, House, orderAt } from '../kit'
import type { Cast, Running } from '../kit'

/** How spaces stand: said by who walks through, left so by finished work, seen by nobody of another site. */
let house: House
let server: Running
let cast: Cast

beforeAll(async () => {
  house = await House.open('readiness')
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

const one = async <Row>(sql: string, values: unknown[] = []) => (await house.rows<Row>(sql, values))[0]!
const spaceOf = async (code: string) => (await one<{ id: number }>('SELECT id FROM place WHERE code = ? AND site_id = 1', [code])).id
const standing = async (code: string, building = 'PUM') => {
  const { floors } = await cast.coordinator.must(readReadiness, { id: await spaceOf(building) })
  return floors.flatMap(({ spaces }) => spaces).find((space) => space.code === code)!
}

test('said with who and when, counted by building, told on the timeline; a technician says it as well', async () => {
  const id = await spaceOf('PUM-104')
  const said = await cast.technician.must(sayReadiness, { id, version: 0, state: 'needs_cleaning' })
  expect(said).toMatchObject({ code: 'PUM-104', state: 'needs_cleaning', version: 1, by: expect.any(String) as string })
  const { rows } = await cast.coordinator.must(listReadiness, {})
  const building = rows.find(({ code }) => code === 'PUM')!
  const spaces = await one<{ n: number }>(
    "SELECT count(*) AS n FROM place p JOIN place b ON b.code = 'PUM' AND p.path LIKE concat(b.path, '%') WHERE p.kind = 'space' AND p.retired_at IS NULL",
  )
  expect(Object.values(building.counts).reduce((sum, n) => sum + n, 0)).toBe(Number(spaces.n))
  expect(building.counts.needs_cleaning).toBeGreaterThanOrEqual(1)
  expect((await cast.coordinator.must(readPortraitTimeline, { register: 'places', id })).entries.map(({ kind }) => kind)).toContain('space.readiness')
})

test('out of use says why; two who say something at once: one is told that it stands otherwise now', async () => {
  const id = await spaceOf('PUM-105')
  const silent = await cast.coordinator.call(sayReadiness, { id, version: 0, state: 'out_of_use' })
  expect([silent.status, silent.problem.reasons![0]!.field]).toEqual([422, 'note'])
  const replies = await Promise.all([
    cast.coordinator.call(sayReadiness, { id, version: 0, state: 'out_of_use', note: 'Flooded' }),
    cast.technician.call(sayReadiness, { id, version: 0, state: 'ready' }),
  ])
  expect(replies.map(({ status }) => status).sort()).toEqual([200, 409])
})

test('a floor, a building and a retired space are neither ready nor not', async () => {
  for (const code of ['PUM', 'PUM-1'])
    expect((await cast.coordinator.call(sayReadiness, { id: await spaceOf(code), version: 0, state: 'ready' })).status).toBe(422)
  expect((await cast.coordinator.call(readReadiness, { id: await spaceOf('PUM-1') })).status).toBe(404)
})

test('finished work leaves the space as the worst of its methods says, under the number of the order', async () => {
  const methods: number[] = []
  for (const leaves of ['ready', 'needs_cleaning'] as const) {
    const { id } = await cast.coordinator.must(addMethod, { code: `M-L-${leaves}`.slice(0, 16), name: `Leaves it ${leaves}`, leaves })
    const step = { text: 'Do it', kind: 'plain' as const, unit: null, least: null, most: null, choices: [], first: false, after: null }
    await cast.coordinator.must(writeMethod, { id, from: 0, content: { steps: [step], labour: [], parts: [], tools: [], hazards: [] } })
    methods.push(id)
  }
  const { id } = await orderAt(cast, 'ready')
  await house.rows('UPDATE work_order SET place_id = ? WHERE id = ?', [await spaceOf('PUM-103'), id])
  await cast.coordinator.must(applyMethods, { orderId: id, version: 0, methodIds: methods })
  const { version, number } = await cast.coordinator.must(readOrder, { id })
  await cast.coordinator.must(dispatchOrder, { id, version, technicianIds: [1], start: '2026-11-24T09:00:00Z', end: '2026-11-24T10:00:00Z' })
  const visitId = (await cast.coordinator.must(readOrder, { id })).visits.at(-1)!.id
  await cast.technician.must(switchStint, { visitId, kind: 'work' })
  expect((await standing('PUM-103')).state).toBeNull()
  await cast.technician.must(finishJob, { visitId, result: 'done', symptom: 'Not working', cause: 'Wear', fix: 'Replaced' })
  expect(await standing('PUM-103')).toMatchObject({ state: 'needs_cleaning', orderNumber: number, note: expect.stringContaining(number) as string })
})

test('nobody of the other site sees or says anything here, and a clerk says nothing at all', async () => {
  const id = await spaceOf('PUM-106')
  await house.rows("UPDATE account_role SET site_id = 2 WHERE account_id = (SELECT id FROM account WHERE email LIKE 'tobias.achterberg%')")
  const other = await new Client(server.url).signIn('tobias.achterberg')
  expect((await other.call(sayReadiness, { id, version: 0, state: 'ready' })).status).toBe(404)
  expect((await other.call(readReadiness, { id: await spaceOf('PUM') })).status).toBe(404)
  expect((await other.must(listReadiness, {})).rows.every(({ siteId }) => siteId === 2)).toBe(true)
  expect((await cast.clerk.call(sayReadiness, { id, version: 0, state: 'ready' })).status).toBe(403)
})
