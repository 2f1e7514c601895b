import { finishJob, readCrewNow, switchStint } from '#contract/field'
import { castAt, Client, House, orderAt } from '../kit'
import type { Cast, Running } from '../kit'

/** The desk sees the field: who is where on which job since when, what runs over, who has not begun, who has not been heard of. */
let house: House
let server: Running
let cast: Cast
beforeAll(async () => {
  house = await House.open('crew_now')
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())
const bram = async () => (await cast.coordinator.must(readCrewNow, {})).rows.find(({ name }) => name === 'Bram Oyelaran')

test('whoever is on a job is there with it, as what since when; and gone once it is left', async () => {
  await house.rows("UPDATE visit SET state = 'ended' WHERE technician_id = 1 AND state = 'planned'")
  expect(await bram()).toBeUndefined()
  const { idle } = await cast.coordinator.must(readCrewNow, {})
  const { id, visitId } = await orderAt(cast, 'dispatched')
  await house.rows("UPDATE visit SET planned_start = '2026-11-23 09:00', planned_end = '2026-11-23 10:10' WHERE id = ?", [visitId])
  expect(await bram()).toMatchObject({ job: null, next: { orderId: id }, signs: [{ kind: 'late', minutes: 90, says: 'should have begun 1 h 30 min ago' }] })
  await cast.technician.must(switchStint, { visitId, kind: 'work', happenedAt: '2026-11-23T09:30:00Z' })
  expect(await bram()).toMatchObject({
    kind: 'work',
    since: '2026-11-23T09:30:00.000Z',
    job: { orderId: id },
    next: null,
    signs: [{ kind: 'over', minutes: 20 }],
  })
  expect((await cast.coordinator.must(readCrewNow, {})).rows[0]!.signs.length).toBeGreaterThan(0)
  await cast.technician.must(finishJob, { visitId, result: 'return' })
  expect(await bram()).toBeUndefined()
  expect((await cast.coordinator.must(readCrewNow, {})).idle).toBe(idle)
})

test('of whom nothing was heard for hours, it is said', async () => {
  const { visitId } = await orderAt(cast, 'dispatched')
  await cast.technician.must(switchStint, { visitId, kind: 'work', happenedAt: '2026-11-23T06:00:00Z' })
  await house.rows("UPDATE event SET at = '2026-11-23 06:00' WHERE visit_id = ? AND kind = 'field.stint'", [visitId])
  expect((await bram())!.signs.map(({ says }) => says)).toContain('not heard of for 4 h 30 min')
})

test('the desk alone sees it, and each site for itself', async () => {
  expect((await cast.technician.call(readCrewNow, {})).status).toBe(403)
  expect((await cast.coordinator.must(readCrewNow, { siteId: 2 })).rows.filter(({ name }) => name === 'Bram Oyelaran')).toEqual([])
  const other = await new Client(server.url).signIn('tobias.achterberg')
  expect((await other.call(readCrewNow, {})).status).toBe(200)
})
