import { acceptRequest, readRequest, readSuggestions, triageRequest } from '#contract/requests'
import type { Suggestions } from '#contract/requests'
import { accepted, castAt, House, report } from '../kit'
import type { Cast, Running } from '../kit'

/** What a request most likely is, from the fourteen months of the demo world. */
let house: House
let server: Running
let cast: Cast

beforeAll(async () => {
  house = await House.open('suggestions')
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

const place = async (code: string) => (await house.rows<{ id: number }>('SELECT id FROM place WHERE code = ?', [code]))[0]!.id
/** The answer, once history is read. */
async function suggested(id: number): Promise<Suggestions> {
  for (let tries = 0; tries < 100; tries++) {
    const answer = await cast.coordinator.must(readSuggestions, { id })
    if (answer.ready) return answer
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
  throw new Error('History was never read.')
}

test('the category as such things were decided, with the words that say so; nothing is chosen by itself', async () => {
  const { id } = await report(cast, { placeId: await place('GAN-202'), summary: 'The basin tap keeps dripping' })
  const { category, trade } = await suggested(id)
  expect(category).toMatchObject({ name: 'Water, drains and toilets', sure: expect.stringMatching(/almost certain|likely/) as string })
  // Its reasons are words of what was asked, the rarest first.
  const because = [...category!.because.matchAll(/“(.+?)”/g)].map((match) => match[1]!)
  expect(because).toContain('dripping')
  expect(because.every((word) => 'the basin tap keeps dripping'.split(' ').includes(word))).toBe(true)
  expect(trade!.name).toBe('Plumbing')
  const sheet = await cast.coordinator.must(readRequest, { id })
  expect([sheet.categoryId, sheet.asset]).toEqual([null, null])
})

test('how such things were solved: finished orders with what they took and cost', async () => {
  const { id } = await report(cast, { placeId: await place('LAN-007'), summary: 'Drain is blocked' })
  const { precedents } = await suggested(id)
  expect(precedents.length).toBeGreaterThan(1)
  for (const one of precedents) {
    const [row] = await house.rows<{ summary: string; finished: string | null; minutes: number }>(
      'SELECT o.summary, o.finished_at AS finished, (SELECT COALESCE(SUM(minutes), 0) FROM stint WHERE order_id = o.id) AS minutes FROM work_order o WHERE o.id = ?',
      [one.id],
    )
    expect(row!.finished).not.toBeNull()
    expect([one.summary, one.minutes]).toEqual([row!.summary, Number(row!.minutes)])
  }
})

test('open ones in the same building that say the same are perhaps the same; those of another building are not', async () => {
  const near = await report(cast, { placeId: await place('KEL-104'), summary: 'Projector shows purple stripes' })
  const far = await report(cast, { placeId: await place('TID-104'), summary: 'Projector shows purple stripes' })
  const mine = await report(cast, { placeId: await place('KEL-104'), summary: 'Purple stripes on the projector' })
  const { duplicates } = await suggested(mine.id)
  expect(duplicates[0]!.id).toBe(near.id)
  expect(duplicates.map((one) => one.id)).not.toContain(far.id)
  expect(duplicates.map((one) => one.id)).not.toContain(mine.id)
})

test('what is decided is learned from: a word nobody has used before means something a moment later', async () => {
  const words = 'Gyroscope wobbles'
  const first = await report(cast, { summary: words })
  expect((await suggested(first.id)).category).toBeNull()
  const [boats] = await house.rows<{ id: number }>("SELECT id FROM category WHERE code = 'boat'")
  const { version } = await cast.coordinator.must(readRequest, { id: first.id })
  const sheet = await cast.coordinator.must(triageRequest, {
    id: first.id,
    version,
    categoryId: boats!.id,
    consequence: 'one_person',
    urgency: 'today',
    payerId: 3,
  })
  await cast.coordinator.must(acceptRequest, { id: first.id, version: sheet.version })
  const second = await report(cast, { summary: words })
  let name: string | undefined
  for (let tries = 0; tries < 60 && name === undefined; tries++) {
    name = (await suggested(second.id)).category?.name
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
  expect(name).toBe('Boats and dive gear')
})

test('only who decides on requests is told', async () => {
  const { id } = await report(cast)
  expect((await cast.approver.call(readSuggestions, { id })).status).toBe(403)
  expect((await cast.coordinator.call(readSuggestions, { id: 999_999 })).status).toBe(404)
  await accepted(cast, id)
})
