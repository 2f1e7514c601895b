import { search } from '#contract/lists'
import type { SearchType } from '#contract/lists'
import { discardOrder } from '#contract/orders'
import { triageRequest, writeComment } from '#contract/requests'
import { accepted, castAt, Client, House, report, version } from '../kit'
import type { Cast, Running } from '../kit'

/** Words over everything there is. */
let house: House
let server: Running
let cast: Cast

beforeAll(async () => {
  house = await House.open('search')
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

const find = (q: string, more: object = {}) => cast.coordinator.must(search, { q, ...more })
const types = (rows: { type: SearchType }[]) => [...new Set(rows.map((row) => row.type))]

test('numbers and outside references first', async () => {
  const { id } = await report(cast)
  await cast.coordinator.must(triageRequest, { id, version: 1, outsideReference: 'SAP 4711/22' })
  const found = (await find('31000')).rows
  expect(found[0]).toMatchObject({ type: 'order', title: 'W-31000', station: 'charges' })
  expect((await find('w-31000')).rows[0]!.title).toBe('W-31000')
  expect((await find('W-3100')).rows.slice(0, 5).every((row) => row.title.startsWith('W-3100'))).toBe(true)
  await cast.coordinator.must(triageRequest, { id, version: 2, outsideReference: 'SAP-4711' })
  expect((await find('SAP-4711')).rows[0]).toMatchObject({ type: 'request', id })
})

test('words in any order, each as it begins, over summaries and descriptions', async () => {
  const { id } = await report(cast, { summary: 'Quokka enclosure hums' })
  const { rows } = await find('hum quok')
  expect(rows).toHaveLength(1)
  expect(rows[0]).toMatchObject({ type: 'request', id, station: 'intake', state: 'new' })
  const orderId = await accepted(cast, id)
  expect((await find('quokka', { type: 'order' })).rows.map((row) => row.id)).toEqual([orderId])
})

test('what people wrote to each other leads to its request, with the words around', async () => {
  const { id } = await report(cast)
  const text = 'We spoke to the caretaker about the zeppelin mooring mast; he will leave the gate open on Thursday morning from eight onwards.'
  await cast.coordinator.must(writeComment, { id, kind: 'note', text } as never)
  const { rows } = await find('zeppelin mast')
  expect(rows).toHaveLength(1)
  expect(rows[0]).toMatchObject({ type: 'conversation', id })
  expect(rows[0]!.snippet).toContain('zeppelin mooring mast')
})

test('names lead to the things that bear them before the work that mentions them', async () => {
  expect((await find('LIFT-1')).rows[0]).toMatchObject({ type: 'asset', title: 'LIFT-1' })
  expect((await find('osric')).rows[0]).toMatchObject({ type: 'person', title: 'Osric Vane' })
  expect((await find('tidehall')).rows.map((row) => row.title)).toContain('TID')
  expect(types((await find('chiller')).rows)).toEqual(expect.arrayContaining(['asset', 'order', 'request']))
})

test.each([
  ['chillr', 'chiller'],
  ['presure', 'pressure'],
  ['flikering', 'flickering'],
  ['Lantren Huose', 'lantern house'],
])('“%s” is put right to “%s”, and it says so', async (typed, meant) => {
  const answer = await find(typed)
  expect(answer.instead).toBe(meant)
  expect(answer.rows.length).toBeGreaterThan(0)
  expect((await find(meant)).instead).toBeNull()
})

test('what was never written and is like nothing finds nothing, and signs are signs', async () => {
  for (const q of ['xylophonics', '%%', '__', '--', '((', '"*', '+-', "'; ¤¤"]) expect([q, (await find(q)).rows]).toEqual([q, []])
})

describe('narrowed', () => {
  test('by kind, state, priority, place and time, as the rows themselves say', async () => {
    const over = await find('drain', { type: 'order', open: false, limit: 100 })
    expect(over.rows.length).toBeGreaterThan(10)
    expect(over.rows.every((row) => ['done', 'checked', 'closed', 'cancelled'].includes(row.state!))).toBe(true)
    const open = await find('drain', { type: 'order', open: true, limit: 100 })
    expect(open.rows.every((row) => !['done', 'checked', 'closed', 'cancelled'].includes(row.state!))).toBe(true)
    const urgent = await find('drain', { type: 'order', priority: 'urgent', limit: 100 })
    const known = await house.rows<{ id: number }>("SELECT id FROM work_order WHERE priority = 'urgent' AND id IN (?)", [urgent.rows.map((row) => row.id)])
    expect(known).toHaveLength(urgent.rows.length)
    const [place] = await house.rows<{ id: number }>("SELECT id FROM place WHERE code = 'GAN'")
    const there = await find('tap', { type: 'request', placeId: place!.id, limit: 100 })
    expect(there.rows.length).toBeGreaterThan(0)
    expect(there.rows.every((row) => row.subtitle.includes(', GAN'))).toBe(true)
    const since = await find('tap', { type: 'request', from: '2026-10-01T00:00:00Z', limit: 100 })
    expect(since.rows.every((row) => row.at! >= '2026-10-01')).toBe(true)
    expect(types((await find('drain', { open: true })).rows).every((type) => type === 'order' || type === 'request')).toBe(true)
  })

  test('page by page, every row once, newest first', async () => {
    const ids: number[] = []
    for (let after: string | undefined, more = true; more;) {
      const page = await find('drain', { type: 'request', limit: 17, ...(after ? { after } : {}) })
      ids.push(...page.rows.map((row) => row.id))
      after = page.next ?? undefined
      more = page.next !== null
    }
    expect(ids).toEqual([...ids].sort((a, b) => b - a))
    const expected = await house.rows<{ id: number }>("SELECT id FROM request WHERE MATCH (summary, description) AGAINST ('+drain*' IN BOOLEAN MODE)")
    expect([...ids].sort((a, b) => a - b)).toEqual(expected.map((row) => row.id).sort((a, b) => a - b))
  })
})

test('somebody of one site finds nothing of the other; technicians do not search the Desk', async () => {
  await house.rows("UPDATE account_role SET site_id = (SELECT id FROM site WHERE code = 'MUS') WHERE account_id = 6")
  const elsewhere = await new Client(server.url).signIn('yusuf.adeyemi-rourke')
  // Vendors serve every site, and so do the documents kept with them.
  for (const q of ['W-31000', 'chillr', 'osric', 'CH-1-CA'])
    expect([q, (await elsewhere.must(search, { q })).rows.filter(({ on }) => on !== 'vendors')]).toEqual([q, []])
  const drains = (await elsewhere.must(search, { q: 'drain' })).rows.filter(({ on }) => on !== 'vendors')
  const here = await house.rows<{ id: number }>('SELECT id FROM work_order WHERE site_id = 2 UNION SELECT id FROM request WHERE site_id = 2')
  expect(drains.every((row) => here.some((one) => one.id === row.id))).toBe(true)
  expect((await cast.technician.call(search, { q: 'drain' })).status).toBe(403)
})

test('a discarded draft is still found: searching is how it is brought back', async () => {
  const { id } = await report(cast, { summary: 'Narwhal tusk came loose' })
  const orderId = await accepted(cast, id)
  await cast.coordinator.must(discardOrder, { id: orderId, version: await version(cast, orderId) })
  expect((await find('narwhal', { type: 'order' })).rows.map((row) => row.id)).toEqual([orderId])
})
