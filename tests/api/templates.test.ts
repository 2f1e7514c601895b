import { dispatchOrder } from '#contract/dispatch'
import { readOrderPlan } from '#contract/methods'
import { readOrder, readOrderTimeline } from '#contract/orders'
import { addTemplate, editTemplate, listTemplates, makeOrders, previewOrders, takeBackBatch } from '#contract/templates'
import type { Template } from '#contract/templates'
import { approved, castAt, Client, House } from '../kit'
import type { Cast, Running } from '../kit'

/** Many orders from one template: previewed, made in one act for a branch, for codes and for rows, and taken back. */
let house: House
let server: Running
let cast: Cast
let template: Template
let method: number

const one = async <Row>(sql: string, values: unknown[] = []) => (await house.rows<Row>(sql, values))[0]!
const placeId = async (code: string) => (await one<{ id: number }>('SELECT id FROM place WHERE code = ? AND site_id = 1', [code])).id
const fields = {
  siteId: 1,
  name: 'Radiators bled',
  kind: 'preventive' as const,
  summary: 'Radiators bled, {code} {name}',
  description: 'Bleed every radiator of the room, note the ones that stay cold.',
  priority: 'deferred' as const,
  categoryId: null,
  tradeId: 1,
  teamId: 1,
  leadId: null,
  supervisorId: 3,
  methodId: null as number | null,
  payerRule: 'place' as const,
  payerId: null,
  estimateMinor: 4_000,
  dueDays: 30,
}

beforeAll(async () => {
  house = await House.open('templates')
  server = await house.start()
  cast = await castAt(server.url)
  method = (await one<{ id: number }>("SELECT id FROM method WHERE code = 'M-GEN-1'")).id
  template = await cast.coordinator.must(addTemplate, { ...fields, methodId: method })
})
afterAll(() => house?.close())

const of = () => ({ id: template.id, version: template.version, lead: 'none' as const })
const bodies = async (codes: string) => (await cast.coordinator.must(previewOrders, { id: template.id, codes })).rows

test('a branch is previewed: what each would get, who pays, and nothing is made', async () => {
  const before = await one('SELECT count(*) AS n FROM work_order')
  const { rows, unknown } = await cast.coordinator.must(previewOrders, { id: template.id, within: { placeId: await placeId('GAN'), what: 'spaces' } })
  const there = await one<{ n: number }>(
    "SELECT count(*) AS n FROM place p JOIN place b ON b.code = 'GAN' AND p.path LIKE concat(b.path, '%') WHERE p.kind = 'space' AND p.retired_at IS NULL",
  )
  expect([rows.length, unknown]).toEqual([Number(there.n), []])
  expect(rows[0]).toMatchObject({ code: 'GAN-001', summary: expect.stringMatching(/^Radiators bled, GAN-001 /) as string, problem: null })
  expect(rows.every(({ payer }) => payer !== null)).toBe(true)
  expect(await one('SELECT count(*) AS n FROM work_order')).toEqual(before)
})

test('forty rooms under a lead order: made in one act, with its method, its target and its payer; and back in one', async () => {
  const codes = (await house.rows<{ code: string }>("SELECT code FROM place WHERE code LIKE 'GAN-%' AND kind = 'space' ORDER BY code LIMIT 40")).map(
    ({ code }) => code,
  )
  expect(codes).toHaveLength(40)
  const made = await cast.coordinator.must(makeOrders, { ...of(), lead: 'new', codes: codes.join('\n') })
  expect(made.rows.map(({ order, sentence }) => [order !== null, sentence])).toEqual(codes.map(() => [true, null]))
  const first = await cast.coordinator.must(readOrder, { id: made.rows[0]!.order!.id })
  expect(first).toMatchObject({
    state: 'draft',
    kind: 'preventive',
    summary: expect.stringContaining(`Radiators bled, ${codes[0]}`) as string,
    estimateMinor: 4_000,
    priority: 'deferred',
    lead: { id: made.lead!.id },
  })
  expect((await cast.coordinator.must(readOrderPlan, { orderId: first.id })).methods).toMatchObject([{ code: 'M-GEN-1' }])
  expect((await cast.coordinator.must(readOrderTimeline, { id: first.id })).entries.map(({ kind }) => kind)).toContain('order.create')
  const due = await one<{ days: number }>('SELECT timestampdiff(day, target_start_at, completion_due_at) AS days FROM work_order WHERE id = ?', [first.id])
  expect(due.days).toBe(30)
  // Again, all of them would be doubled, and are left out unless somebody says otherwise.
  const again = await cast.coordinator.call(makeOrders, { ...of(), codes: codes.join('\n') })
  expect([again.status, again.problem.reasons![0]!.code]).toEqual([422, 'nothing_left'])
  expect((await bodies(codes[0]!))[0]!.doubled).toMatchObject({ number: made.rows[0]!.order!.number })
  const despite = await cast.coordinator.must(makeOrders, { ...of(), codes: codes.slice(0, 2).join(','), doubled: [made.rows[1]!.key] })
  expect(despite.rows.map(({ order, sentence }) => [order !== null, sentence])).toEqual([
    [false, `${made.rows[0]!.order!.number} is open there already.`],
    [true, null],
  ])

  const { batches } = await cast.coordinator.must(listTemplates, {})
  expect(batches[1]).toMatchObject({ id: made.batchId, template: 'Radiators bled', orders: 41, takenBack: false })
  expect(await cast.coordinator.must(takeBackBatch, { id: made.batchId })).toEqual({ taken: 41, kept: [] })
  expect(
    Number(
      (
        await one<{ n: number }>(
          'SELECT count(*) AS n FROM work_order WHERE id IN (SELECT order_id FROM batch_order WHERE batch_id = ?) AND discarded_at IS NULL',
          [made.batchId],
        )
      ).n,
    ),
  ).toBe(0)
  expect((await cast.coordinator.call(takeBackBatch, { id: made.batchId })).status).toBe(422)
  await cast.coordinator.must(takeBackBatch, { id: despite.batchId })
})

test('what somebody has begun stays and is named; what only waits for approval is called off', async () => {
  const made = await cast.coordinator.must(makeOrders, { ...of(), codes: 'GAN-101, GAN-102, GAN-103' })
  const [first, second] = made.rows.map(({ order }) => order!)
  await approved(cast, first!.id)
  await approved(cast, second!.id)
  const { version } = await cast.coordinator.must(readOrder, { id: second!.id })
  await house.rows("UPDATE order_step SET state = 'done' WHERE order_id = ?", [second!.id])
  await cast.coordinator.must(dispatchOrder, { id: second!.id, version, technicianIds: [1], start: '2026-11-24T09:00:00Z', end: '2026-11-24T10:00:00Z' })
  const { taken, kept } = await cast.coordinator.must(takeBackBatch, { id: made.batchId })
  expect([taken, kept]).toEqual([2, [{ ...second, sentence: 'Somebody has begun on it.' }]])
  expect((await cast.coordinator.must(readOrder, { id: first!.id })).state).toBe('cancelled')
})

test('two who make the same at once: each room gets one order', async () => {
  const codes = 'GAN-301\nGAN-302\nGAN-303'
  const replies = await Promise.all([1, 2, 3].map(() => cast.coordinator.call(makeOrders, { ...of(), codes })))
  expect(replies.map(({ status }) => status).sort()).toEqual([200, 422, 422])
  expect(await house.rows("SELECT id FROM work_order WHERE summary LIKE 'Radiators bled, GAN-30%' AND discarded_at IS NULL")).toHaveLength(3)
})

test('assets of a class in a branch, and codes nobody is called by', async () => {
  const { rows } = await cast.coordinator.must(previewOrders, {
    id: template.id,
    within: { placeId: await placeId('PUM'), what: 'assets', classCode: 'D3030' },
  })
  expect(rows.map(({ key, place }) => [key[0], place !== null])).toEqual(rows.map(() => ['a', true]))
  expect(rows.map(({ code }) => code)).toEqual(expect.arrayContaining(['CH-1', 'CH-2']))
  expect(await cast.coordinator.must(previewOrders, { id: template.id, codes: 'CH-1, NOWHERE' })).toMatchObject({
    rows: [{ code: 'CH-1' }],
    unknown: ['NOWHERE'],
  })
})

test('a place nobody pays for says so, and gets nothing; a fixed payer pays for any', async () => {
  const id = await placeId('GAN-104')
  const path = (await one<{ path: string }>('SELECT path FROM place WHERE id = ?', [id])).path.split('/').filter(Boolean)
  const kept = await house.rows<{ id: number; payer: number | null }>(`SELECT id, payer_id AS payer FROM place WHERE id IN (${path.join()})`)
  await house.rows(`UPDATE place SET payer_id = NULL WHERE id IN (${path.join()})`)
  expect((await bodies('GAN-104'))[0]).toMatchObject({ payer: null, problem: 'Nobody pays for this place yet: say who on its Portrait.' })
  expect((await cast.coordinator.call(makeOrders, { ...of(), codes: 'GAN-104' })).status).toBe(422)
  template = await cast.coordinator.must(editTemplate, { ...fields, id: template.id, version: template.version, payerRule: 'fixed', payerId: 1 })
  expect((await bodies('GAN-104'))[0]!.problem).toBeNull()
  for (const row of kept) await house.rows('UPDATE place SET payer_id = ? WHERE id = ?', [row.payer, row.id])
})

test.each([
  ['without a payer', { payerRule: 'fixed' as const, payerId: null }, 'payerId'],
  ['with a word nobody knows', { summary: 'Bleed {room}' }, 'summary'],
  ['with a method that is not there', { methodId: 9_999 }, 'methodId'],
  ['with a team of nowhere', { teamId: 9_999 }, 'teamId'],
  ['at no site of theirs', { siteId: 99 }, 'siteId'],
])('%s it is not kept', async (_, more, field) => {
  const reply = await cast.coordinator.call(addTemplate, { ...fields, ...more })
  expect([reply.status, reply.problem.reasons![0]!.field]).toEqual([422, field])
})

test('under an order that is there; not under one that is over, a member, or another site’s', async () => {
  const lead = await one<{ number: string }>(
    "SELECT number FROM work_order WHERE site_id = 1 AND state = 'ready' AND lead_order_id IS NULL AND discarded_at IS NULL LIMIT 1",
  )
  const made = await cast.coordinator.must(makeOrders, { ...of(), lead: 'order', leadNumber: lead.number.toLowerCase(), codes: 'GAN-201' })
  expect(made.lead!.number).toBe(lead.number)
  for (const number of [
    made.rows[0]!.order!.number,
    'W-1',
    (await one<{ number: string }>("SELECT number FROM work_order WHERE state = 'closed' LIMIT 1")).number,
  ])
    expect((await cast.coordinator.call(makeOrders, { ...of(), lead: 'order', leadNumber: number, codes: 'GAN-202' })).problem.reasons![0]!.field).toBe(
      'leadNumber',
    )
})

test('put away, it makes nothing; nobody of the other site sees or uses it', async () => {
  await house.rows("UPDATE account_role SET site_id = 2 WHERE account_id = (SELECT id FROM account WHERE email LIKE 'tobias.achterberg%')")
  const other = await new Client(server.url).signIn('tobias.achterberg')
  const { rows, batches } = await other.must(listTemplates, {})
  expect([rows.filter(({ siteId }) => siteId === 1), batches.filter(({ template: name }) => name === 'Radiators bled')]).toEqual([[], []])
  expect((await other.call(previewOrders, { id: template.id, codes: 'GAN-101' })).status).toBe(404)
  expect((await other.call(makeOrders, { ...of(), codes: 'GAN-101' })).status).toBe(404)
  expect((await cast.clerk.call(previewOrders, { id: template.id, codes: 'GAN-101' })).status).toBe(403)
  template = await cast.coordinator.must(editTemplate, { ...fields, id: template.id, version: template.version, retired: true })
  expect((await cast.coordinator.call(makeOrders, { ...of(), codes: 'GAN-203' })).problem.reasons![0]!.code).toBe('retired')
  expect((await cast.coordinator.call(editTemplate, { ...fields, id: template.id, version: 1 })).status).toBe(409)
})
