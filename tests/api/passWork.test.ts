import sharp from 'sharp'
import { revokePass } from '#contract/dispatch'
import { listFindings } from '#contract/findings'
import { addStep, readOrderPlan, savePlan } from '#contract/methods'
import { readOrder, readOrderTimeline } from '#contract/orders'
import { readQuotes, takeQuote } from '#contract/quotes'
import * as pass from '#contract/vendors'
import { castAt, Client, dispatched, House, orderAt, version } from '../kit'
import type { Cast, Running } from '../kit'
import { eInvoice } from '../kit/eInvoice'

/** The vendor pass: all a technician does on a job, by a link, for one’s own visit only. */
let house: House
let server: Running
let cast: Cast
let vendor: Client
beforeAll(async () => {
  house = await House.open('passWork', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
  vendor = new Client(server.url)
})
afterAll(() => house?.close())

let count = 0
async function newVendor() {
  const email = `working-${++count}@vendor.example`
  const { id } = await cast.coordinator.must(pass.addVendor, { name: `Working ${count}`, email })
  return { id, email }
}
/** An order that a vendor was sent to, with the pass from the mail. */
async function sent(to?: { id: number; email: string }, prepare: (orderId: number) => Promise<unknown> = () => Promise.resolve()) {
  const { id: vendorId, email } = to ?? (await newVendor())
  const { id } = await orderAt(cast, 'ready')
  await prepare(id)
  await dispatched(cast, id, { vendorId })
  const { number, visits } = await cast.coordinator.must(readOrder, { id })
  const { text } = await house.mail(email, (mail) => mail.subject.includes(number))
  return { id, number, email, vendorId, visitId: visits.at(-1)!.id, token: /\/p\/([\w-]+)/.exec(text)![1]! }
}
const picture = async () =>
  new Blob([
    new Uint8Array(
      await sharp({ create: { width: 60, height: 30, channels: 3, background: '#fff' } })
        .jpeg()
        .toBuffer(),
    ),
  ])
const sentence = (reply: { problem: { detail?: string; reasons?: { sentence: string }[] } }) => reply.problem.reasons?.[0]?.sentence ?? reply.problem.detail
let marks = 0
const mark = () => `pass-mark-${String(++marks).padStart(10, '0')}`

test('hazards are read and permits held before work begins, by the pass as by anybody', async () => {
  const { token } = await sent(undefined, async (orderId) => {
    const plan = await cast.coordinator.must(readOrderPlan, { orderId })
    const hazards = [{ hazard: 'Live parts', control: 'Lock out', permit: 'isolation' as const }]
    await cast.coordinator.must(savePlan, { orderId, version: plan.version, hazards })
  })
  const work = () => vendor.call(pass.switchVendorStint, { token, kind: 'work' })
  expect((await work()).status).toBe(422)
  await vendor.must(pass.switchVendorStint, { token, kind: 'travel' })
  const { hazards } = await vendor.must(pass.readPass, { token })
  expect(hazards).toHaveLength(1)
  expect((await vendor.call(pass.readPassHazards, { token, read: 'something else' })).status).toBe(422)
  const { hazardsAsRead } = await import('#core/field')
  expect((await vendor.must(pass.readPassHazards, { token, read: hazardsAsRead(hazards) })).hazardsReadAt).toBeTruthy()
  expect(sentence(await work())).toContain('permit')
  await vendor.must(pass.holdPassPermit, { token, kind: 'isolation', number: 'EP-7', fromAt: '2026-11-23T08:00:00Z', untilAt: '2026-11-23T18:00:00Z' })
  expect((await work()).status).toBe(200)
})

test('steps, findings, photos, papers and a signature are recorded under the name of the vendor', async () => {
  const { id, token } = await sent(undefined, async (orderId) => {
    await cast.coordinator.must(addStep, { orderId, text: 'Measure the insulation', kind: 'measured', unit: 'MΩ', least: 1, most: null })
  })
  await vendor.must(pass.switchVendorStint, { token, kind: 'work' })
  const [step] = (await vendor.must(pass.readPass, { token })).steps
  expect(sentence(await vendor.call(pass.doPassStep, { token, id: step!.id, version: step!.version }))).toBeTruthy()
  const done = await vendor.must(pass.doPassStep, { token, id: step!.id, version: step!.version, value: '2.5' })
  expect(done.steps[0]).toMatchObject({ state: 'done', value: '2.5', doneBy: expect.stringMatching(/^Working/) as string })
  const undone = await vendor.must(pass.undoPassStep, { token, id: step!.id, version: done.steps[0]!.version })
  expect(undone.steps[0]).toMatchObject({ state: 'open', doneBy: null })
  const named = mark()
  await vendor.must(pass.addPassFinding, { token, mark: named, text: 'Cover of the next box is cracked', severity: 'unsafe', fixedNow: false })
  const found = await vendor.must(pass.addPassFindingPhoto, { token, mark: named }, { file: await picture() })
  expect(found.findings).toEqual([expect.objectContaining({ text: 'Cover of the next box is cracked', state: 'open', mayTakeBack: true })])
  expect((await cast.coordinator.must(listFindings, {})).rows.map(({ text }) => text)).toContain('Cover of the next box is cracked')
  await vendor.must(pass.addVendorPhoto, { token, stage: 'before' }, { file: await picture() })
  await vendor.must(pass.addPassFile, { token, name: 'Test report.pdf' }, { file: new Blob(['%PDF-1.4 report']) })
  const { files, photos, signatures } = await vendor.must(pass.signPass, { token, name: 'Nuala Ingleby' }, { file: await picture() })
  expect([files.map(({ name }) => name), photos.map(({ stage }) => stage), signatures.map(({ name }) => name)]).toEqual([
    ['Test report.pdf'],
    expect.arrayContaining(['before']),
    ['Nuala Ingleby'],
  ])
  expect((await vendor.call(pass.readPassFile, { token, fileId: files[0]!.id })).status).toBe(200)
  expect((await cast.coordinator.must(readOrder, { id })).attachments.length).toBeGreaterThanOrEqual(4)
  // Another pass opens nothing of it, and does nothing to it.
  const other = await sent()
  expect((await vendor.call(pass.readPassFile, { token: other.token, fileId: files[0]!.id })).status).toBe(404)
  expect((await vendor.call(pass.doPassStep, { token: other.token, id: step!.id, version: undone.steps[0]!.version, value: '2' })).status).toBe(404)
  expect((await vendor.call(pass.takeBackPassFinding, { token: other.token, mark: named })).status).toBe(404)
  expect((await vendor.must(pass.takeBackPassFinding, { token, mark: named })).findings).toEqual([])
  const by = (await cast.coordinator.must(readOrderTimeline, { id })).entries.filter(({ kind }) =>
    ['step.do', 'finding.add', 'field.sign', 'vendor.file'].includes(kind),
  )
  expect(by).toHaveLength(4)
  expect(by.every(({ who }) => who.startsWith('Working'))).toBe(true)
})

test('parts they bring are written down, taken out again, and theirs alone', async () => {
  const { id, token } = await sent()
  await vendor.must(pass.switchVendorStint, { token, kind: 'work' })
  const { brought } = await vendor.must(pass.bringPart, { token, name: 'Door gasket', quantity: '2', unit: 'pc' })
  expect(brought).toEqual([expect.objectContaining({ name: 'Door gasket', quantity: '2.000', unit: 'pc' })])
  // The desk sees with the visit what it may find on the bill.
  const atDesk = async () => (await cast.coordinator.must(readOrder, { id })).visits.map((visit) => visit.brought)
  expect(await atDesk()).toEqual([[{ name: 'Door gasket', quantity: '2', unit: 'pc' }]])
  const other = await sent()
  expect((await cast.coordinator.must(readOrder, { id: other.id })).visits[0]!.brought).toEqual([])
  expect((await vendor.call(pass.dropPart, { token: other.token, id: brought[0]!.id })).status).toBe(404)
  expect((await vendor.call(pass.bringPart, { token, name: 'x', quantity: '0', unit: 'pc' })).problem.reasons![0]!.field).toBe('quantity')
  expect((await vendor.must(pass.dropPart, { token, id: brought[0]!.id })).brought).toEqual([])
  expect(await atDesk()).toEqual([[]])
  const kinds = (await cast.coordinator.must(readOrderTimeline, { id })).entries.map(({ kind }) => kind)
  expect(kinds).toEqual(expect.arrayContaining(['vendor.part', 'vendor.dropPart']))
})

test('a price is named before work, changed, and taken by the desk; not once work has begun', async () => {
  const { id, token } = await sent()
  await vendor.must(pass.namePassPrice, { token, netMinor: 40_000, taxBp: 1_350 })
  const { price } = await vendor.must(pass.namePassPrice, { token, netMinor: 45_000, taxBp: 1_350, note: 'With a new gasket' })
  expect(price).toEqual({ netMinor: 45_000, taxBp: 1_350, note: 'With a new gasket', state: 'priced' })
  const { rows } = await cast.coordinator.must(readQuotes, { orderId: id })
  expect(rows).toEqual([expect.objectContaining({ netMinor: 45_000, state: 'priced' })])
  await cast.coordinator.must(takeQuote, { id: rows[0]!.id, version: rows[0]!.version })
  expect(sentence(await vendor.call(pass.namePassPrice, { token, netMinor: 50_000, taxBp: 1_350 }))).toContain('agreed to')
  const begun = await sent()
  await vendor.must(pass.switchVendorStint, { token: begun.token, kind: 'work' })
  expect(sentence(await vendor.call(pass.namePassPrice, { token: begun.token, netMinor: 1, taxBp: 0 }))).toContain('begun')
})

describe('the bill', () => {
  const lines = [
    { name: 'Call-out', quantity: '1', price: '140.00', amount: '140.00' },
    { name: 'Fitter', quantity: '1.25', price: '71.00', amount: '88.75' },
  ]
  test('as an electronic invoice is read, looked at, sent, and kept with the order', async () => {
    const { id, token } = await sent()
    await vendor.must(pass.switchVendorStint, { token, kind: 'work' })
    const xml = await eInvoice({ number: 'OHM-118', lines, net: '228.75' })
    const file = await vendor.must(pass.readBillFile, { token, name: 'OHM-118.xml' }, { file: new Blob([xml]) })
    expect(file.read).toMatchObject({ number: 'OHM-118', taxBp: 1_350 })
    // Nothing is entered by reading it.
    expect((await vendor.must(pass.readPass, { token })).bill).toBeNull()
    const { bill } = await vendor.must(pass.enterBill, { token, ...file.read!, fileClaim: file.claim })
    expect(bill).toMatchObject({ number: 'OHM-118', netMinor: 22_875, file: true })
    expect((await cast.coordinator.must(readOrder, { id })).attachments.map(({ name }) => name)).toContain('OHM-118.xml')
    // Its file is nobody else’s to claim.
    const other = await sent()
    await vendor.must(pass.switchVendorStint, { token: other.token, kind: 'work' })
    const again = { ...file.read!, number: 'OHM-119', fileClaim: file.claim }
    expect((await vendor.call(pass.enterBill, { token: other.token, ...again })).problem.reasons![0]!.field).toBe('fileClaim')
  })

  test('as a PDF goes along with what is written; anything else, and what cannot be read, is refused in a sentence', async () => {
    const { token } = await sent()
    await vendor.must(pass.switchVendorStint, { token, kind: 'work' })
    const read = (name: string, content: string) => vendor.call(pass.readBillFile, { token, name }, { file: new Blob([content]) })
    expect((await read('Bill.pdf', '%PDF-1.7\n%bill')).body).toMatchObject({ name: 'Bill.pdf', read: null })
    expect(sentence(await read('bill.txt', 'Dear desk'))).toContain('UBL')
    expect(sentence(await read('bill.xml', '<Invoice><ID>1'))).toBeTruthy()
    expect(sentence(await read('bill.xml', '<!DOCTYPE x [<!ENTITY a "b">]><Invoice><ID>&a;</ID></Invoice>'))).toContain('words of its own')
    expect(sentence(await read('bill.xml', await eInvoice({ number: 'X', currency: 'GBP', lines, net: '228.75' })))).toContain('GBP')
    expect((await vendor.must(pass.readPass, { token })).bill).toBeNull()
  })
})

describe('links', () => {
  test('show the other jobs of the same vendor, each by its own link, and nobody else’s', async () => {
    const who = await newVendor()
    const [one, two] = [await sent(who), await sent(who)]
    const stranger = await sent()
    const { others } = await vendor.must(pass.readPass, { token: one.token })
    expect(others.map(({ number }) => number)).toEqual([two.number])
    expect(others[0]!.link).toBe(`/p/${two.token}`)
    expect((await vendor.must(pass.readPass, { token: stranger.token })).others).toEqual([])
    const { visits } = await cast.coordinator.must(readOrder, { id: two.id })
    await cast.coordinator.must(revokePass, { id: visits.at(-1)!.pass!.id })
    expect((await vendor.must(pass.readPass, { token: one.token })).others).toEqual([])
    expect((await vendor.call(pass.renewPass, { token: two.token })).status).toBe(404)
  })

  test('that have ended are renewed by asking: mailed to the vendor, at most once an hour, never shown', async () => {
    const { token, email, visitId, number } = await sent()
    expect(sentence(await vendor.call(pass.renewPass, { token }))).toBe('This link works still.')
    await house.rows("UPDATE vendor_pass SET expires_at = '2026-11-22' WHERE visit_id = ?", [visitId])
    expect((await vendor.call(pass.readPass, { token })).status).toBe(404)
    const asked = await vendor.call(pass.renewPass, { token })
    expect(asked.body).toEqual({ sentTo: `w…@vendor.example` })
    expect(asked.text).not.toContain('/p/')
    const { text } = await house.mail(email, (mail) => mail.text.includes('new link you asked for'))
    const fresh = /\/p\/([\w-]+)/.exec(text)![1]!
    expect(fresh).not.toBe(token)
    expect((await vendor.must(pass.readPass, { token: fresh })).number).toBe(number)
    expect((await vendor.call(pass.readPass, { token })).status).toBe(404)
    expect((await vendor.call(pass.renewPass, { token })).status).toBe(404)
    await house.rows("UPDATE vendor_pass SET expires_at = '2026-11-22' WHERE visit_id = ?", [visitId])
    expect(sentence(await vendor.call(pass.renewPass, { token: fresh }))).toContain('sent to w…@vendor.example')
    expect((await vendor.call(pass.renewPass, { token: 'x'.repeat(43) })).status).toBe(404)
  })
})

test('nobody finishes for others: what one vendor does on an order is theirs, and a pass that was taken back does nothing', async () => {
  const { id, token } = await sent()
  const { visits } = await cast.coordinator.must(readOrder, { id })
  await cast.coordinator.must(revokePass, { id: visits.at(-1)!.pass!.id })
  const tries = [
    vendor.call(pass.bringPart, { token, name: 'x', quantity: '1', unit: 'pc' }),
    vendor.call(pass.sayByPass, { token, mark: mark(), text: 'Hello' }),
    vendor.call(pass.namePassPrice, { token, netMinor: 1, taxBp: 0 }),
    vendor.call(pass.addPassFile, { token, name: 'a.pdf' }, { file: new Blob(['%PDF-1.4']) }),
    vendor.call(pass.readBillFile, { token, name: 'a.pdf' }, { file: new Blob(['%PDF-1.4']) }),
    vendor.call(pass.addPassFinding, { token, mark: mark(), text: 'x', severity: 'watch', fixedNow: false }),
  ]
  expect((await Promise.all(tries)).map(({ status }) => status)).toEqual([404, 404, 404, 404, 404, 404])
  expect(await version(cast, id)).toBeGreaterThan(0)
})
