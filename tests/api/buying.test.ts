import { finishJob, switchStint } from '#contract/field'
import { savePlan } from '#contract/methods'
import { holdOrder, readOrder, readOrderTimeline } from '#contract/orders'
import { readPortraitMovements } from '#contract/portraits'
import { readRuleBook, saveRules } from '#contract/setup'
import {
  addPart,
  addStore,
  askForOrder,
  askPurchase,
  billPurchase,
  buyListed,
  cancelPurchase,
  editPurchase,
  enterCount,
  listPurchases,
  listToBuy,
  moveStock,
  orderPurchase,
  printCountSheet,
  readCountSheet,
  readOrderParts,
  readPurchase,
  readPurchasePdf,
  receivePurchase,
  reservePart,
} from '#contract/stock'
import type { Purchase } from '#contract/stock'
import { addVendor } from '#contract/vendors'
import { castAt, Client, House, orderAt, version } from '../kit'
import type { Cast, Running } from '../kit'

/** Parts that are bought: asked for, ordered, received in parts, billed; orders that wait for them go on; what to buy, and counts. */
let house: House
let server: Running
let cast: Cast
let main: number
let vendor: number

beforeAll(async () => {
  house = await House.open('buying', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
  main = (await house.rows<{ id: number }>('SELECT id FROM store WHERE site_id = 1 ORDER BY id LIMIT 1'))[0]!.id
  vendor = (await cast.coordinator.must(addVendor, { name: 'Cordage and Bearings', email: 'sales@cordage.example' })).id
})
afterAll(() => house?.close())

let parts = 0
async function part(more: object = {}): Promise<number> {
  return (await cast.coordinator.must(addPart, { code: `B-${++parts}`, name: `Bought part ${parts}`, unit: 'pc', ...more })).id
}
const ask = (lines: { partId: number; quantity: string; priceMinor?: number | null; orderId?: number }[], more: object = {}) =>
  cast.coordinator.must(askPurchase, { storeId: main, vendorId: vendor, lines, ...more })
const order = ({ id, version: at }: Purchase) => cast.coordinator.must(orderPurchase, { id, version: at })
const levelOf = async (partId: number) =>
  (await cast.coordinator.must(readPortraitMovements, { register: 'parts', id: partId })).levels.find((one) => one.storeId === main)
const reasonOf = (reply: { problem: { reasons?: { sentence: string; field?: string }[] } }) => reply.problem.reasons![0]!
const planParts = async (orderId: number, lines: { partId: number; quantity: string }[]) =>
  cast.coordinator.must(savePlan, { orderId, version: 0, parts: lines })

describe('a purchase', () => {
  test('is asked for at the last price, ordered with its paper by mail, received in parts, and billed', async () => {
    const [belt, bolt] = [await part(), await part()]
    await cast.coordinator.must(moveStock, { act: 'receipt', storeId: main, partId: belt, quantity: '2', unitCostMinor: 450 })
    const asked = await ask([
      { partId: belt, quantity: '10' },
      { partId: bolt, quantity: '100', priceMinor: 12 },
    ])
    expect(asked).toMatchObject({
      state: 'asked',
      vendor: 'Cordage and Bearings',
      totalMinor: 5_700,
      lines: [{ priceMinor: 450, lastPriceMinor: 450 }, { priceMinor: 12 }],
    })
    expect(asked.number).toMatch(/^P-\d+$/)
    expect(await levelOf(belt)).toMatchObject({ onOrder: '0' })
    const ordered = await cast.coordinator.must(orderPurchase, { id: asked.id, version: asked.version, expectedOn: '2026-12-04' })
    expect(ordered).toMatchObject({ state: 'ordered', orderedBy: 'Maren Quill', expectedOn: '2026-12-04' })
    expect(await levelOf(belt)).toMatchObject({ onHand: '2', onOrder: '10' })
    const mail = (await house.mail('sales@cordage.example')) as { subject: string; text: string; files: { name: string; bytes: number }[] }
    expect([mail.subject, mail.text]).toEqual([expect.stringContaining(asked.number), expect.stringContaining('We expect it on 2026-12-04.')])
    expect(mail.files).toEqual([{ name: `${asked.number}.pdf`, bytes: expect.any(Number) as number }])
    const paper = await cast.coordinator.call(readPurchasePdf, { id: asked.id })
    expect(paper.status).toBe(200)

    const [first, second] = ordered.lines as [Purchase['lines'][number], Purchase['lines'][number]]
    const some = await cast.coordinator.must(receivePurchase, {
      id: asked.id,
      version: ordered.version,
      lines: [{ lineId: first.id, quantity: '4', priceMinor: 500 }],
      note: 'Box one of two',
    })
    expect([some.state, some.lines.map(({ received }) => received), some.receipts.map(({ quantity, priceMinor, by }) => [quantity, priceMinor, by])]).toEqual([
      'ordered',
      ['4', '0'],
      [['4', 500, 'Maren Quill']],
    ])
    // 2 at 4.50 and 4 at 5.00: 29.00 over 6.
    expect(await levelOf(belt)).toMatchObject({ onHand: '6', onOrder: '6', averageCostMinor: 483 })
    const tooMuch = await cast.coordinator.call(receivePurchase, {
      id: asked.id,
      version: some.version,
      lines: [{ lineId: first.id, quantity: '6.001', priceMinor: 500 }],
    })
    expect([tooMuch.status, reasonOf(tooMuch).sentence]).toEqual([422, expect.stringContaining('6 pc of Bought part 1 are still to come')])
    const whole = await cast.coordinator.must(receivePurchase, {
      id: asked.id,
      version: some.version,
      lines: [
        { lineId: first.id, quantity: '6', priceMinor: 450 },
        { lineId: second.id, quantity: '100', priceMinor: 12 },
      ],
    })
    expect(whole.state).toBe('received')
    expect(
      (await cast.coordinator.call(billPurchase, { id: asked.id, version: whole.version, number: 'CB-1', on: '2026-12-01', amountMinor: 5_900 })).status,
    ).toBe(403)
    const billed = await cast.clerk.must(billPurchase, { id: asked.id, version: whole.version, number: 'CB-1', on: '2026-12-01', amountMinor: 5_900 })
    expect(billed.bill).toEqual({
      number: 'CB-1',
      on: '2026-12-01',
      amountMinor: 5_900,
      difference: 'The bill is 2.00 more than what was received at its prices, 57.00.',
    })
    const again = await cast.clerk.call(billPurchase, { id: asked.id, version: billed.version, number: 'CB-2', on: '2026-12-01', amountMinor: 1 })
    expect(reasonOf(again).sentence).toBe('Its bill CB-1 is entered already.')
    // The last price paid is offered next time.
    expect((await ask([{ partId: belt, quantity: '1' }])).lines[0]!.priceMinor).toBe(450)
    const found = await cast.coordinator.must(listPurchases, { q: 'Bought part 2' })
    expect(found.rows.map(({ id, billed: paid }) => [id, paid])).toEqual([[asked.id, true]])
  })

  test('cannot be ordered without a vendor or a line, changed once ordered, or received before', async () => {
    const id = await part()
    const none = await cast.coordinator.must(askPurchase, { storeId: main, lines: [{ partId: id, quantity: '3' }] })
    const early = await cast.coordinator.call(receivePurchase, {
      id: none.id,
      version: none.version,
      lines: [{ lineId: none.lines[0]!.id, quantity: '1', priceMinor: 1 }],
    })
    expect(reasonOf(early).sentence).toBe('It is asked for: order it first.')
    const refused = await cast.coordinator.call(orderPurchase, { id: none.id, version: none.version })
    expect([refused.status, reasonOf(refused).field]).toEqual([422, 'vendorId'])
    const empty = await cast.coordinator.must(editPurchase, { id: none.id, version: none.version, vendorId: vendor, lines: [] })
    expect(reasonOf(await cast.coordinator.call(orderPurchase, { id: none.id, version: empty.version })).field).toBe('lines')
    const filled = await cast.coordinator.must(editPurchase, { id: none.id, version: empty.version, lines: [{ partId: id, quantity: '2' }] })
    const ordered = await order(filled)
    expect((await cast.coordinator.call(editPurchase, { id: none.id, version: ordered.version, lines: [] })).status).toBe(422)
    const later = await cast.coordinator.must(editPurchase, { id: none.id, version: ordered.version, expectedOn: '2026-12-24', note: 'Ring first' })
    expect(later).toMatchObject({ expectedOn: '2026-12-24', note: 'Ring first', lines: [{ quantity: '2' }] })
    expect((await cast.coordinator.call(editPurchase, { id: none.id, version: ordered.version, note: 'Too late' })).status).toBe(409)
    const off = await cast.coordinator.must(cancelPurchase, { id: none.id, version: later.version, reason: 'Found some' })
    expect(off.state).toBe('cancelled')
    expect((await cast.coordinator.call(cancelPurchase, { id: none.id, version: off.version, reason: 'Again' })).status).toBe(422)
  })

  test('received by two at once, nothing comes twice', async () => {
    const id = await part()
    const ordered = await order(await ask([{ partId: id, quantity: '5', priceMinor: 100 }]))
    const receive = () =>
      cast.coordinator.call(receivePurchase, {
        id: ordered.id,
        version: ordered.version,
        lines: [{ lineId: ordered.lines[0]!.id, quantity: '5', priceMinor: 100 }],
      })
    expect((await Promise.all([receive(), receive(), receive()])).map(({ status }) => status).sort()).toEqual([200, 409, 409])
    expect(await levelOf(id)).toMatchObject({ onHand: '5', onOrder: '0' })
  })

  test('for an order goes to what is asked for already of its vendor, and stands beside the part', async () => {
    const id = await part({ vendorId: vendor, leadDays: 3 })
    const { id: orderId } = await orderAt(cast, 'ready')
    await planParts(orderId, [{ partId: id, quantity: '2' }])
    const replies = await Promise.all([1, 2].map(() => cast.coordinator.call(askForOrder, { orderId, partId: id, quantity: '1' })))
    expect(replies.map(({ status }) => status)).toEqual([200, 200])
    expect(replies[0]!.body).toEqual(replies[1]!.body)
    const [row] = (await cast.coordinator.must(readOrderParts, { orderId })).rows
    expect(row!.coming).toEqual([
      { purchaseId: replies[0]!.body.id, number: replies[0]!.body.number, state: 'asked', quantity: '2', expectedOn: null, forThis: true },
    ])
    expect((await cast.coordinator.must(readOrderTimeline, { id: orderId })).entries.map(({ kind }) => kind)).toContain('stock.ask')
  })
})

describe('what an order waits for', () => {
  async function waiting(partId: number, quantity: string, priority?: string) {
    const { id } = await orderAt(cast, 'ready')
    await planParts(id, [{ partId, quantity }])
    if (priority) await house.rows('UPDATE work_order SET priority = ? WHERE id = ?', [priority, id])
    await cast.coordinator.must(holdOrder, { id, version: await version(cast, id), holdReason: 'part', reason: 'Not in stock' })
    return id
  }
  const stateOf = async (id: number) => (await cast.coordinator.must(readOrder, { id })).state

  test('comes: the most urgent has it first, goes on, and who leads it hears of it', async () => {
    const id = await part()
    const routine = await waiting(id, '3', 'routine')
    const urgent = await waiting(id, '2', 'urgent')
    const tobias = await new Client(server.url).signIn('tobias.achterberg')
    await tobias.must(moveStock, { act: 'receipt', storeId: main, partId: id, quantity: '4', unitCostMinor: 100 })
    expect([await stateOf(urgent), await stateOf(routine)]).toEqual(['ready', 'on_hold'])
    const reserved = async (orderId: number) => (await cast.coordinator.must(readOrderParts, { orderId })).rows.map((row) => row.reserved)
    expect([await reserved(urgent), await reserved(routine)]).toEqual([['2'], ['2']])
    const entries = (await cast.coordinator.must(readOrderTimeline, { id: urgent })).entries
    expect(entries.find(({ kind }) => kind === 'order.resume')?.reason).toBe(`What it waited for is here: 2 pc Bought part ${parts}`)
    await cast.coordinator.hears((sentence) => sentence.includes(`goes on: 2 pc Bought part ${parts}`))
    expect((await house.mail('maren.quill@skerry.example', ({ subject }) => subject.includes('goes on'))).text).toContain('came and is reserved for it')
    // The rest comes by a purchase, and by a count.
    const ordered = await order(await ask([{ partId: id, quantity: '1', priceMinor: 100 }]))
    await cast.coordinator.must(receivePurchase, {
      id: ordered.id,
      version: ordered.version,
      lines: [{ lineId: ordered.lines[0]!.id, quantity: '1', priceMinor: 100 }],
    })
    expect([await stateOf(routine), await reserved(routine)]).toEqual(['ready', ['3']])
  })

  test('is let go by another: it is kept for who waits', async () => {
    const id = await part()
    await cast.coordinator.must(moveStock, { act: 'receipt', storeId: main, partId: id, quantity: '1', unitCostMinor: 100 })
    const { id: other } = await orderAt(cast, 'ready')
    await cast.coordinator.must(reservePart, { orderId: other, partId: id, storeId: main, quantity: '1' })
    const waits = await waiting(id, '1')
    await cast.coordinator.must(reservePart, { orderId: other, partId: id, storeId: main, quantity: '0' })
    expect(await stateOf(waits)).toBe('ready')
  })

  test('comes where the site wants to hear more before anything goes on: it is kept for the order, and who leads it is told that it stays', async () => {
    const admin = await new Client(server.url).signIn('wendeline.stroud')
    const { book, versions } = await admin.must(readRuleBook, { siteId: 1 })
    const rule = { move: 'resume' as const, when: {}, answers: ['The reporter was rung'] }
    const kept = await admin.must(saveRules, { siteId: 1, version: versions.reasons, section: 'reasons', content: [...book.reasons, rule] })
    const id = await part()
    const waits = await waiting(id, '1')
    const tobias = await new Client(server.url).signIn('tobias.achterberg')
    await tobias.must(moveStock, { act: 'receipt', storeId: main, partId: id, quantity: '1', unitCostMinor: 100 })
    expect(await stateOf(waits)).toBe('on_hold')
    expect((await cast.coordinator.must(readOrderParts, { orderId: waits })).rows.map(({ reserved }) => reserved)).toEqual(['1'])
    await cast.coordinator.hears((sentence) => sentence.includes(`stays on hold: 1 pc Bought part ${parts}`))
    await admin.must(saveRules, { siteId: 1, version: kept.versions.reasons, section: 'reasons', content: book.reasons })
  })

  test('an order on hold for something else stays, and one that waits for more parts stays as well', async () => {
    const [one, two] = [await part(), await part()]
    const { id: access } = await orderAt(cast, 'ready')
    await planParts(access, [{ partId: one, quantity: '1' }])
    await cast.coordinator.must(holdOrder, { id: access, version: await version(cast, access), holdReason: 'access', reason: 'Locked' })
    const { id: both } = await orderAt(cast, 'ready')
    await planParts(both, [
      { partId: one, quantity: '1' },
      { partId: two, quantity: '1' },
    ])
    await cast.coordinator.must(holdOrder, { id: both, version: await version(cast, both), holdReason: 'part', reason: 'Two of them' })
    await cast.coordinator.must(moveStock, { act: 'receipt', storeId: main, partId: one, quantity: '5', unitCostMinor: 100 })
    expect([await stateOf(access), await stateOf(both)]).toEqual(['on_hold', 'on_hold'])
    await cast.coordinator.must(moveStock, { act: 'receipt', storeId: main, partId: two, quantity: '5', unitCostMinor: 100 })
    expect(await stateOf(both)).toBe('ready')
  })
})

test('a technician who leaves for want of a part names it: the order waits for it, and goes on when it comes', async () => {
  const id = await part()
  const { id: orderId, visitId } = await orderAt(cast, 'dispatched')
  await cast.technician.must(switchStint, { visitId, kind: 'work' })
  const leave = (partId: number, quantity: string) =>
    cast.technician.call(finishJob, { visitId, result: 'part', note: 'Gone brittle', waitsFor: { partId, quantity } })
  const unknown = await leave(999_999, '1')
  expect([unknown.status, reasonOf(unknown).field]).toEqual([422, 'waitsFor'])
  expect((await leave(id, '0')).status).toBe(400)
  expect((await cast.coordinator.must(readOrder, { id: orderId })).state).toBe('on_job')
  expect((await leave(id, '2')).status).toBe(200)
  const held = await cast.coordinator.must(readOrder, { id: orderId })
  expect([held.state, held.holdReason]).toEqual(['on_hold', 'part'])
  expect((await cast.coordinator.must(readOrderTimeline, { id: orderId })).entries.find(({ kind }) => kind === 'order.hold')?.reason).toBe(
    `Waits for 2 pc Bought part ${parts}. Gone brittle`,
  )
  await cast.coordinator.must(moveStock, { act: 'receipt', storeId: main, partId: id, quantity: '2', unitCostMinor: 100 })
  expect((await cast.coordinator.must(readOrder, { id: orderId })).state).toBe('ready')
})

describe('what to buy', () => {
  test('is what fell to its reorder point or is awaited, with the sum; one act makes a purchase a vendor', async () => {
    const id = await part({ vendorId: vendor, leadDays: 10 })
    await cast.coordinator.must(moveStock, { act: 'receipt', storeId: main, partId: id, quantity: '13', unitCostMinor: 2_000 })
    // One issued every thirty days for a year.
    const { id: orderId } = await orderAt(cast, 'ready')
    for (let month = 0; month < 12; month++)
      await house.rows(
        "INSERT INTO stock_movement (store_id, part_id, kind, quantity, unit_cost_minor, order_id, at) VALUES (?, ?, 'issue', -1, 2000, ?, date_sub((SELECT max(at) FROM event), interval ? day))",
        [main, id, orderId, month * 30 + 15],
      )
    await house.rows('UPDATE stock_level SET quantity = 0.3 WHERE store_id = ? AND part_id = ?', [main, id])
    const mine = async () => (await cast.coordinator.must(listToBuy, { siteId: 1 })).rows.find(({ partId }) => partId === id)
    const row = (await mine())!
    // 12 in 345 days: D = 12.70 a year, S = 25.00, H = 20 % of 20.00: sqrt(2 x 12.70 x 25 / 4) = 12.6. Ten days take
    // 0.348, and 1.6449 x sqrt(12 / 345 x 10) = 0.970 more for safety.
    expect([row.vendor, row.buy, Math.round(row.economicQuantity! * 10) / 10, Math.round(row.reorderPoint * 100) / 100]).toEqual([
      'Cordage and Bearings',
      13,
      12.6,
      1.32,
    ])
    expect(row.because.join(' ')).toContain('Economic quantity')
    const sent = { siteId: 1, storeId: main, lines: [{ partId: id, quantity: '13', vendorId: vendor }] }
    const { rows } = await cast.coordinator.must(buyListed, sent)
    expect(rows).toMatchObject([{ vendor: 'Cordage and Bearings', lines: 1 }])
    expect((await cast.coordinator.must(readPurchase, { id: rows[0]!.id })).lines).toMatchObject([{ partId: id, quantity: '13', priceMinor: 2_000 }])
    // What is asked for is not asked for twice.
    expect(await mine()).toBeUndefined()
    expect((await cast.clerk.call(buyListed, sent)).status).toBe(403)
    expect((await cast.coordinator.call(buyListed, { ...sent, lines: [{ partId: id, quantity: '1', vendorId: 9_999 }] })).status).toBe(422)
  })
})

describe('a count', () => {
  test('is printed, entered line by line, and leaves alone what moved meanwhile', async () => {
    const store = await cast.coordinator.must(addStore, { name: 'Count room', siteId: 1 })
    const ids = [await part(), await part(), await part()]
    for (const id of ids) await cast.coordinator.must(moveStock, { act: 'receipt', storeId: store.id, partId: id, quantity: '5', unitCostMinor: 100 })
    const sheet = await cast.coordinator.must(readCountSheet, { storeId: store.id })
    expect(sheet.lines.map(({ partId, onHand }) => [partId, onHand])).toEqual(ids.map((id) => [id, '5']))
    expect((await cast.coordinator.call(printCountSheet, { storeId: store.id })).status).toBe(200)
    await cast.coordinator.must(moveStock, { act: 'transfer', storeId: store.id, partId: ids[2]!, quantity: '2', toStoreId: main })
    const { rows } = await cast.coordinator.must(enterCount, {
      storeId: store.id,
      reason: 'Yearly count',
      lines: [
        { partId: ids[0]!, found: '5', expected: '5' },
        { partId: ids[1]!, found: '0', expected: '5' },
        { partId: ids[2]!, found: '5', expected: '5' },
      ],
    })
    expect(rows.map(({ standing }) => standing)).toEqual(['same', 'corrected', 'moved'])
    expect(rows[2]!.sentence).toContain('and 3 now')
    const now = (await cast.coordinator.must(readCountSheet, { storeId: store.id })).lines.map(({ onHand }) => onHand)
    expect(now).toEqual(['5', '0', '3'])
    expect((await cast.coordinator.call(enterCount, { storeId: store.id, reason: ' ', lines: [{ partId: ids[0]!, found: '1', expected: '5' }] })).status).toBe(
      400,
    )
  })
})

test('nobody of the other site sees, orders or counts anything here', async () => {
  const id = await part()
  const asked = await ask([{ partId: id, quantity: '3' }])
  await house.rows("UPDATE account_role SET site_id = 2 WHERE account_id = (SELECT id FROM account WHERE email LIKE 'tobias.achterberg%')")
  const other = await new Client(server.url).signIn('tobias.achterberg')
  const at = { id: asked.id, version: asked.version }
  const replies = await Promise.all([
    other.call(readPurchase, { id: asked.id }),
    other.call(readPurchasePdf, { id: asked.id }),
    other.call(orderPurchase, at),
    other.call(cancelPurchase, { ...at, reason: 'x' }),
    other.call(askPurchase, { storeId: main, lines: [{ partId: id, quantity: '1' }] }),
    other.call(readCountSheet, { storeId: main }),
    other.call(enterCount, { storeId: main, reason: 'x', lines: [{ partId: id, found: '1', expected: '0' }] }),
  ])
  expect(replies.map(({ status }) => status)).toEqual([404, 404, 404, 404, 404, 404, 404])
  expect((await other.must(listPurchases, {})).rows).toEqual([])
  expect((await other.call(listToBuy, { siteId: 1 })).status).toBe(422)
})
