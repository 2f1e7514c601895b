import { readPortraitMovements, readPortraitTimeline } from '#contract/portraits'
import { applyMethods } from '#contract/methods'
import { switchStint, usePart } from '#contract/field'
import { cancelOrder, readOrder, readOrderTimeline } from '#contract/orders'
import { readRuleBook, saveRules } from '#contract/setup'
import { addPart, addStore, moveStock, readOrderParts, reservePart } from '#contract/stock'
import { castAt, Client, House, orderAt, version } from '../kit'
import type { Cast, Running } from '../kit'

/** Parts in several stores: received, kept, issued, brought back, moved and counted; nothing twice, nothing below nought. */
let house: House
let server: Running
let cast: Cast
let main: number
let shed: number

beforeAll(async () => {
  house = await House.open('stock')
  server = await house.start()
  cast = await castAt(server.url)
  main = (await house.rows<{ id: number }>('SELECT id FROM store WHERE site_id = 1 ORDER BY id LIMIT 1'))[0]!.id
  shed = (await cast.coordinator.must(addStore, { name: 'Boat shed', siteId: 1 })).id
})
afterAll(() => house?.close())

let parts = 0
/** A fresh part of which so many lie in the main store, at 2.00 each. */
async function part(onHand = '10'): Promise<number> {
  const { id } = await cast.coordinator.must(addPart, { code: `T-${++parts}`, name: `Test part ${parts}`, unit: 'pc' })
  if (Number(onHand)) await move({ act: 'receipt', partId: id, quantity: onHand, unitCostMinor: 200 })
  return id
}
type Move = Partial<Parameters<typeof sent>[0]> & { partId: number; act: 'receipt' | 'issue' | 'return' | 'transfer' | 'count'; quantity: string }
const sent = (more: {
  act: string
  partId: number
  quantity: string
  storeId?: number
  unitCostMinor?: number
  orderNumber?: string
  toStoreId?: number
  reason?: string
}) => ({
  storeId: main,
  ...more,
})
const tried = (more: Move, who: Client = cast.coordinator) => who.call(moveStock, sent(more))
const move = async (more: Move) => (await cast.coordinator.must(moveStock, sent(more) as never)).level
const levelOf = async (partId: number, storeId = main) =>
  (await cast.coordinator.must(readPortraitMovements, { register: 'parts', id: partId })).levels.find((one) => one.storeId === storeId)
const sentence = (reply: { problem: { reasons?: { sentence: string }[] } }) => reply.problem.reasons![0]!.sentence
const order = async (state: Parameters<typeof orderAt>[1] = 'ready') => {
  const { id, visitId } = await orderAt(cast, state)
  return { id, visitId, number: (await cast.coordinator.must(readOrder, { id })).number }
}
const keep = (orderId: number, partId: number, quantity: string, storeId = main) => cast.coordinator.call(reservePart, { orderId, partId, storeId, quantity })

describe('movements', () => {
  test('what comes in moves the average; what goes out leaves it; each is a record with who, what and at which price', async () => {
    const id = await part('10')
    expect(await move({ act: 'receipt', partId: id, quantity: '5', unitCostMinor: 500 })).toMatchObject({ onHand: '15', averageCostMinor: 300 })
    const { number, id: orderId } = await order()
    expect(await move({ act: 'issue', partId: id, quantity: '2.5', orderNumber: number.toLowerCase() })).toMatchObject({
      onHand: '12.5',
      averageCostMinor: 300,
    })
    const { rows } = await cast.coordinator.must(readPortraitMovements, { register: 'parts', id })
    expect(rows.map(({ kind, quantity, unitCostMinor, orderNumber, by }) => [kind, Number(quantity), unitCostMinor, orderNumber, by])).toEqual([
      ['issue', -2.5, 300, number, 'Maren Quill'],
      ['receipt', 5, 500, null, 'Maren Quill'],
      ['receipt', 10, 200, null, 'Maren Quill'],
    ])
    expect((await cast.coordinator.must(readOrder, { id: orderId })).facts.costMinor).toBe(750)
    expect((await cast.coordinator.must(readOrderTimeline, { id: orderId })).entries.map(({ kind }) => kind)).toContain('stock.move')
    expect(JSON.stringify(await cast.coordinator.must(readPortraitTimeline, { register: 'parts', id }))).toContain('stock.move')
  })

  test('what was taken comes back at what it cost, and no more than was taken', async () => {
    const id = await part('4')
    const { number, id: orderId } = await order()
    await move({ act: 'issue', partId: id, quantity: '3', orderNumber: number })
    await move({ act: 'receipt', partId: id, quantity: '1', unitCostMinor: 1_000 })
    const more = await tried({ act: 'return', partId: id, quantity: '3.001', orderNumber: number })
    expect([more.status, sentence(more)]).toEqual([422, 'The order has 3 pc of it: no more can come back.'])
    await move({ act: 'return', partId: id, quantity: '2', orderNumber: number, storeId: shed })
    expect(await levelOf(id, shed)).toMatchObject({ onHand: '2', averageCostMinor: 200 })
    expect((await cast.coordinator.must(readOrder, { id: orderId })).facts.costMinor).toBe(200)
  })

  test('moved to another store at what it is worth; there and back changes nothing', async () => {
    const id = await part('8')
    await move({ act: 'transfer', partId: id, quantity: '3', toStoreId: shed })
    expect([(await levelOf(id))!.onHand, (await levelOf(id, shed))!.onHand, (await levelOf(id, shed))!.averageCostMinor]).toEqual(['5', '3', 200])
    await move({ act: 'transfer', partId: id, quantity: '3', storeId: shed, toStoreId: main })
    expect(await levelOf(id)).toMatchObject({ onHand: '8', averageCostMinor: 200 })
    expect(sentence(await tried({ act: 'transfer', partId: id, quantity: '1', toStoreId: main }))).toBe('Choose another store to move it to.')
  })

  test('a count becomes the difference, with its reason; one that agrees moves nothing', async () => {
    const id = await part('8')
    expect(await move({ act: 'count', partId: id, quantity: '6.5', reason: 'Two and a bit are gone' })).toMatchObject({ onHand: '6.5' })
    await move({ act: 'count', partId: id, quantity: '6.5', reason: 'Counted again' })
    expect(await move({ act: 'count', partId: id, quantity: '0', reason: 'Flooded' })).toMatchObject({ onHand: '0' })
    const { rows } = await cast.coordinator.must(readPortraitMovements, { register: 'parts', id })
    expect(rows.filter(({ kind }) => kind === 'correction').map(({ quantity, reason }) => [Number(quantity), reason])).toEqual([
      [-6.5, 'Flooded'],
      [-1.5, 'Two and a bit are gone'],
    ])
  })

  test.each<[string, Omit<Move, 'partId'>, string]>([
    ['a receipt without a price', { act: 'receipt', quantity: '1' }, 'unitCostMinor'],
    ['an issue to no order', { act: 'issue', quantity: '1' }, 'orderNumber'],
    ['an issue to an order that is not there', { act: 'issue', quantity: '1', orderNumber: 'W-1' }, 'orderNumber'],
    ['a transfer to nowhere', { act: 'transfer', quantity: '1' }, 'toStoreId'],
    ['a count without a reason', { act: 'count', quantity: '1' }, 'reason'],
    ['more than is there', { act: 'transfer', quantity: '10.001', toStoreId: 0 }, 'quantity'],
    ['a store nobody knows', { act: 'count', quantity: '1', reason: 'x', storeId: 9_999 }, 'storeId'],
  ])('%s is refused at its field, and nothing moves', async (_name, asked, field) => {
    const id = await part('10')
    const reply = await tried({ ...asked, partId: id, ...(asked.toStoreId === 0 ? { toStoreId: shed } : {}) })
    expect([reply.status, reply.problem.reasons![0]!.field]).toEqual([422, field])
    expect(await levelOf(id)).toMatchObject({ onHand: '10' })
  })

  test('nothing is issued to an order that nobody approved', async () => {
    const id = await part('10')
    const { number } = await order('draft')
    expect(sentence(await tried({ act: 'issue', partId: id, quantity: '1', orderNumber: number }))).toBe(
      `${number} has not been approved: nothing is issued to it yet.`,
    )
    expect(await levelOf(id)).toMatchObject({ onHand: '10' })
  })

  test('fifty at once of a part with twenty on hand: exactly twenty succeed', async () => {
    const id = await part('20')
    const { number } = await order()
    const replies = await Promise.all(Array.from({ length: 50 }, () => tried({ act: 'issue', partId: id, quantity: '1', orderNumber: number })))
    expect([replies.filter(({ status }) => status === 200).length, replies.filter(({ status }) => status === 422).length]).toEqual([20, 30])
    expect(await levelOf(id)).toMatchObject({ onHand: '0', free: '0' })
  }, 60_000)

  test('moved both ways between two stores at once, nothing is lost and nobody waits for ever', async () => {
    const id = await part('10')
    await move({ act: 'transfer', partId: id, quantity: '5', toStoreId: shed })
    const there = () => tried({ act: 'transfer', partId: id, quantity: '1', toStoreId: shed })
    const back = () => tried({ act: 'transfer', partId: id, quantity: '1', storeId: shed, toStoreId: main })
    const replies = await Promise.all([there(), back(), there(), back(), there(), back()])
    expect(replies.map(({ status }) => status)).toEqual([200, 200, 200, 200, 200, 200])
    expect([(await levelOf(id))!.onHand, (await levelOf(id, shed))!.onHand]).toEqual(['5', '5'])
  })
})

describe('kept for an order', () => {
  test('is not free for others, is used up when it is taken, and can be let go', async () => {
    const id = await part('10')
    const [mine, other] = [await order(), await order()]
    expect((await keep(mine.id, id, '7')).status).toBe(200)
    expect(await levelOf(id)).toMatchObject({ onHand: '10', reserved: '7', free: '3' })
    const refused = await keep(other.id, id, '4')
    expect([refused.status, sentence(refused)]).toEqual([422, expect.stringContaining('There are 3 pc of it free')])
    expect(sentence(await tried({ act: 'issue', partId: id, quantity: '4', orderNumber: other.number }))).toBe(
      'There are 3 pc of it free in this store. 7 pc more are reserved for other orders.',
    )
    await move({ act: 'issue', partId: id, quantity: '5', orderNumber: mine.number })
    const [row] = (await cast.coordinator.must(readOrderParts, { orderId: mine.id })).rows
    expect(row).toMatchObject({ planned: '0', reserved: '2', issued: '5', unit: 'pc' })
    expect((await keep(mine.id, id, '0')).status).toBe(200)
    expect(await levelOf(id)).toMatchObject({ onHand: '5', reserved: '0', free: '5' })
    const kinds = (await cast.coordinator.must(readOrderTimeline, { id: mine.id })).entries.map(({ kind }) => kind)
    expect(kinds).toEqual(expect.arrayContaining(['stock.reserve', 'stock.release']))
  })

  test('two who keep the last at once: one has it', async () => {
    const id = await part('1')
    const both = [await order(), await order()]
    const replies = await Promise.all(both.map((one) => keep(one.id, id, '1')))
    expect(replies.map(({ status }) => status).sort()).toEqual([200, 422])
  })

  test('an order that is over keeps nothing, and nothing is kept for it', async () => {
    const id = await part('3')
    const { id: orderId } = await order()
    await keep(orderId, id, '3')
    await cast.coordinator.must(cancelOrder, { id: orderId, version: await version(cast, orderId), reason: 'Not needed' })
    expect(await levelOf(id)).toMatchObject({ reserved: '0', free: '3' })
    expect((await keep(orderId, id, '1')).status).toBe(422)
  })

  test('a technician takes first what was kept for the job, and never what is kept for another', async () => {
    const id = await part('5')
    await move({ act: 'transfer', partId: id, quantity: '2', toStoreId: shed })
    const { id: orderId, visitId } = await order('dispatched')
    const other = await order()
    await keep(orderId, id, '2', shed)
    await keep(other.id, id, '3')
    await cast.technician.must(switchStint, { visitId, kind: 'work' })
    await cast.technician.must(usePart, { visitId, partId: id, quantity: '2' })
    expect([(await levelOf(id, shed))!.onHand, (await levelOf(id))!.onHand]).toEqual(['0', '3'])
    const more = await cast.technician.call(usePart, { visitId, partId: id, quantity: '1' })
    expect([more.status, sentence(more)]).toEqual([422, 'There are 0 pc of it in stock.'])
  })

  test('what a method plans is told beside what is kept, taken and free', async () => {
    const { id: orderId } = await order('draft')
    const [method] = await house.rows<{ id: number }>("SELECT id FROM method WHERE code = 'M-COIL-1'")
    await cast.coordinator.must(applyMethods, { orderId, version: 0, methodIds: [method!.id] })
    const { rows, mayReserve } = await cast.coordinator.must(readOrderParts, { orderId })
    expect([rows.map(({ code, planned }) => [code, planned]), mayReserve]).toEqual([
      [
        ['HV-201', '1'],
        ['HV-202', '1'],
      ],
      true,
    ])
    expect(rows[0]!.stores.length).toBeGreaterThan(0)
    expect((await cast.approver.must(readOrderParts, { orderId })).mayReserve).toBe(false)
  })
})

test('nobody of the other site sees, keeps or moves anything here', async () => {
  const id = await part('5')
  const { id: orderId } = await order()
  await house.rows("UPDATE account_role SET site_id = 2 WHERE account_id = (SELECT id FROM account WHERE email LIKE 'tobias.achterberg%')")
  const other = await new Client(server.url).signIn('tobias.achterberg')
  expect((await tried({ act: 'count', partId: id, quantity: '0', reason: 'Gone' }, other)).status).toBe(404)
  expect((await other.call(reservePart, { orderId, partId: id, storeId: main, quantity: '1' })).status).toBe(404)
  expect((await other.call(readOrderParts, { orderId })).status).toBe(404)
  expect((await other.must(readPortraitMovements, { register: 'parts', id })).levels).toEqual([])
  const told = (await other.must(readPortraitTimeline, { register: 'parts', id })).entries.map(({ kind }) => kind)
  expect(told).toEqual(['register.add'])
  expect((await tried({ act: 'count', partId: id, quantity: '0', reason: 'Gone' }, cast.clerk)).status).toBe(403)
  expect(await levelOf(id)).toMatchObject({ onHand: '5' })
})

test('where a site counts parts at the last price paid, orders are charged that, and the stock is worth what it was', async () => {
  const admin = await new Client(server.url).signIn('wendeline.stroud')
  const rules = await admin.must(readRuleBook, { siteId: 1 })
  const save = (costing: 'average' | 'last', version: number) =>
    admin.must(saveRules, { siteId: 1, version, section: 'planning', content: { ...rules.book.planning, costing } })
  const { versions } = await save('last', rules.versions.planning)
  const id = await part('10')
  await move({ act: 'receipt', partId: id, quantity: '10', unitCostMinor: 400 })
  const { id: orderId, number } = await order()
  // At 3.00 on the average, 4.00 were paid last.
  expect(await move({ act: 'issue', partId: id, quantity: '2', orderNumber: number })).toMatchObject({ averageCostMinor: 300 })
  const cost = async () => (await cast.coordinator.must(readOrder, { id: orderId })).facts.costMinor
  expect(await cost()).toBe(800)
  await move({ act: 'return', partId: id, quantity: '1', orderNumber: number })
  expect([await cost(), await levelOf(id)]).toMatchObject([400, { onHand: '19', averageCostMinor: 300 }])
  await save('average', versions.planning)
})
