import { addVendor } from '#contract/vendors'
import { cancelOrder, readOrder } from '#contract/orders'
import { askQuotes, nameNone, namePrice, readQuotePage, readQuotes, takeQuote, withdrawQuote } from '#contract/quotes'
import { castAt, Client, House, orderAt, version } from '../kit'
import type { Cast, Running } from '../kit'

/** Several vendors are asked for a price, their answers compared, one taken. */
let house: House
let server: Running
let cast: Cast
let vendor: Client
beforeAll(async () => {
  house = await House.open('quotes', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
  vendor = new Client(server.url)
})
afterAll(() => house?.close())

const DUE = '2026-11-25T10:00:00.000Z'
let count = 0
/** An order, and so many vendors asked, each with the link from the mail. */
async function asked(many: number, state: 'draft' | 'ready' = 'ready') {
  const { id } = await orderAt(cast, state)
  const vendors = await Promise.all(
    Array.from({ length: many }, async () => {
      const email = `quotes-${++count}@vendor.example`
      return { email, id: (await cast.coordinator.must(addVendor, { name: `Quoting ${count}`, email })).id }
    }),
  )
  await cast.coordinator.must(askQuotes, { orderId: id, vendorIds: vendors.map((one) => one.id), wanted: 'Two new pumps, fitted\nand tried', dueAt: DUE })
  const tokens: string[] = []
  for (const { email } of vendors) tokens.push(/\/q\/([\w-]+)/.exec((await house.mail(email)).text)![1]!)
  return { id, vendors, tokens, rows: async () => (await cast.coordinator.must(readQuotes, { orderId: id })).rows }
}
const price = (token: string, netMinor: number, more = {}) => vendor.must(namePrice, { token, netMinor, taxBp: 1350, ...more })
const code = (reply: { problem: { reasons?: { code: string }[] } }) => reply.problem.reasons?.[0]?.code

test('three are asked; two prices and a refusal stand beside each other, the cheapest first; one is taken and all are told', async () => {
  const { id, vendors, tokens, rows } = await asked(3)
  await price(tokens[0]!, 240_000, { note: 'With scaffolding', earliestAt: '2026-12-01T08:00:00Z' })
  await price(tokens[1]!, 198_050, { validUntil: '2026-12-31' })
  await vendor.must(nameNone, { token: tokens[2]!, note: 'Too far' })
  expect((await rows()).map(({ vendorId, state, netMinor, aboveMinor, lowest }) => [vendorId, state, netMinor, aboveMinor, lowest])).toEqual([
    [vendors[1]!.id, 'priced', 198_050, 0, true],
    [vendors[0]!.id, 'priced', 240_000, 41_950, false],
    [vendors[2]!.id, 'declined', null, null, false],
  ])
  const { number } = await cast.coordinator.must(readOrder, { id })
  await cast.coordinator.hears((sentence) => sentence.includes(`named a price for ${number}`))
  const [best] = await rows()
  await cast.coordinator.must(takeQuote, { id: best!.id, version: best!.version })
  expect((await rows()).map(({ state }) => state).sort()).toEqual(['declined', 'passed_over', 'taken'])
  const sheet = await cast.coordinator.must(readOrder, { id })
  expect(sheet.vendorId).toBe(vendors[1]!.id)
  // Ten times what was agreed to: it has to be agreed to again.
  expect(sheet.facts.outgrownMinor).toBe(198_050)
  await house.mail(vendors[1]!.email, ({ text }) => text.includes('we take the price'))
  await house.mail(vendors[0]!.email, ({ text }) => text.includes('goes to somebody else'))
  const page = await vendor.must(readQuotePage, { token: tokens[0]! })
  expect([page.state, page.over]).toEqual(['passed_over', expect.stringContaining('somebody else')])
  expect(code(await vendor.call(namePrice, { token: tokens[0]!, netMinor: 1, taxBp: 0 }))).toBe('over')
})

test('a vendor sees what is wanted and where, and nothing else; before approval, too', async () => {
  const { tokens } = await asked(1, 'draft')
  const page = await vendor.must(readQuotePage, { token: tokens[0]! })
  expect(Object.keys(page).sort()).toEqual(
    ['answer', 'dueAt', 'earliestAt', 'netMinor', 'number', 'over', 'place', 'site', 'state', 'taxBp', 'validUntil', 'vendor', 'wanted'].sort(),
  )
  expect(page.wanted).toBe('Two new pumps, fitted\nand tried')
  // Of the order itself nothing is seen by this link.
  expect((await vendor.call(readQuotePage, { token: 'B'.repeat(43) })).status).toBe(404)
})

test('a price is changed until one is taken; one that has lapsed is not taken, and is not the lowest', async () => {
  const { tokens, rows } = await asked(2)
  await price(tokens[0]!, 5_000, { validUntil: '2026-11-22' })
  await price(tokens[1]!, 9_000)
  const [first, second] = await rows()
  expect([first!.netMinor, first!.lowest, second!.lapsed, second!.lowest]).toEqual([9_000, true, true, false])
  expect(code(await cast.coordinator.call(takeQuote, { id: second!.id, version: second!.version }))).toBe('lapsed')
  await price(tokens[0]!, 5_500, { validUntil: '2026-11-23' })
  expect((await rows())[0]).toMatchObject({ netMinor: 5_500, lowest: true, lapsed: false })
  // Looked at before it was changed: nobody takes a price they have not seen.
  expect((await cast.coordinator.call(takeQuote, { id: second!.id, version: second!.version })).status).toBe(409)
})

test('asked anew, what was asked before is over; taken back, the link says so; two who take at once take one', async () => {
  const { id, vendors, tokens, rows } = await asked(2)
  await cast.coordinator.must(askQuotes, { orderId: id, vendorIds: [vendors[0]!.id], wanted: 'One pump', dueAt: DUE })
  expect((await vendor.must(readQuotePage, { token: tokens[0]! })).over).toBe('No price is needed any more.')
  await price(tokens[1]!, 7_000)
  const mine = (await rows()).find(({ vendorId, state }) => vendorId === vendors[0]!.id && state === 'asked')!
  await cast.coordinator.must(withdrawQuote, { id: mine.id, version: mine.version })
  await house.mail(vendors[0]!.email, ({ text }) => text.includes('we need no price from you any more'))
  const priced = (await rows()).find(({ state }) => state === 'priced')!
  const second = await new Client(server.url).signIn('tobias.achterberg')
  const both = await Promise.all([cast.coordinator, second].map((who) => who.call(takeQuote, { id: priced.id, version: priced.version })))
  expect(both.map(({ status }) => status).sort()).toEqual([200, 409])
  expect(code(await cast.coordinator.call(askQuotes, { orderId: id, vendorIds: [vendors[1]!.id], wanted: 'Again', dueAt: DUE }))).toBe('taken')
})

test('silence: reminded half-way, then the desk hears of it, each once', async () => {
  const { id, vendors } = await asked(1)
  await house.rows("UPDATE quote SET remind_at = '2026-11-23 10:00:00' WHERE order_id = ?", [id])
  await house.mail(vendors[0]!.email, ({ text }) => text.includes('have not heard from you yet'))
  await house.rows("UPDATE quote SET tell_at = '2026-11-23 10:00:00' WHERE order_id = ?", [id])
  const { number } = await cast.coordinator.must(readOrder, { id })
  await house.mail('maren.quill@skerry.example', ({ subject }) => subject.includes(`no price for ${number}`))
  const kinds = await house.rows<{ kind: string }>("SELECT kind FROM event WHERE order_id = ? AND kind IN ('quote.remind', 'quote.silent')", [id])
  expect(kinds.map(({ kind }) => kind)).toEqual(['quote.remind', 'quote.silent'])
})

test('nobody is reminded of work that was given up', async () => {
  const { id, vendors } = await asked(1)
  const before = (await house.rows('SELECT 1 FROM mail WHERE `to` = ?', [vendors[0]!.email])).length
  await cast.coordinator.must(cancelOrder, { id, version: await version(cast, id), reason: 'Not needed' })
  await house.rows("UPDATE quote SET remind_at = '2026-11-23 10:00:00' WHERE order_id = ?", [id])
  for (let tries = 0; tries < 100; tries++) {
    const [row] = await house.rows<{ at: Date | null }>('SELECT remind_at AS at FROM quote WHERE order_id = ?', [id])
    if (row!.at === null) break
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
  expect(await house.rows("SELECT 1 FROM event WHERE order_id = ? AND kind = 'quote.remind'", [id])).toEqual([])
  expect((await house.rows('SELECT 1 FROM mail WHERE `to` = ?', [vendors[0]!.email])).length).toBe(before)
})

test('what cannot be asked is said at its field; who does not plan asks nobody', async () => {
  const { id } = await orderAt(cast, 'ready')
  const ask = { orderId: id, vendorIds: [1], wanted: 'A pump', dueAt: DUE }
  expect(code(await cast.coordinator.call(askQuotes, { ...ask, dueAt: '2026-11-23T10:00:00Z' }))).toBe('in_the_past')
  expect((await cast.coordinator.call(askQuotes, { ...ask, vendorIds: [99_999] })).status).toBe(422)
  expect((await cast.coordinator.call(askQuotes, { ...ask, vendorIds: [] })).status).toBe(400)
  expect((await cast.approver.call(askQuotes, ask)).status).toBe(403)
  expect((await cast.technician.call(readQuotes, { orderId: id })).status).toBe(403)
  const done = await orderAt(cast, 'done')
  expect(code(await cast.coordinator.call(askQuotes, { ...ask, orderId: done.id }))).toBe('order_over')
})
