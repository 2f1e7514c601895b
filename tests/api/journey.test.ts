import { listCandidates, revokePass } from '#contract/dispatch'
import { addJobPhoto, addNote, finishJob, listJobs, readJob, switchStint, usePart } from '#contract/field'
import { downloadStatementCsv, downloadStatementPdf, listStatements, previewCharges, readStatement } from '#contract/ledger'
import * as orders from '#contract/orders'
import { answerQuestion, askReporter, declineRequest, joinRequest, readRequest, trackRequest, triageRequest, uploadCounterFile } from '#contract/requests'
import { enterBill, finishVendorJob, readPass, switchVendorStint } from '#contract/vendors'
import sharp from 'sharp'
import { accepted, castAt, Client, complete, dispatched, House, orderAt, orderInFull, report, requestInFull, version, worked } from '../kit'
import type { Cast, Running } from '../kit'

let house: House
let server: Running
let cast: Cast

beforeAll(async () => {
  house = await House.open('journey', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

const linkToken = (text: string, kind: 't' | 'p') => new RegExp(`/${kind}/([A-Za-z0-9_-]{43})`).exec(text)![1]!
const picture = () =>
  sharp({ create: { width: 40, height: 30, channels: 3, background: '#1F7A7A' } })
    .jpeg()
    .toBuffer()

describe('intake and triage', () => {
  test('a report is acknowledged by mail with its private link, and the link shows nothing internal', async () => {
    const photo = await cast.anybody.must(uploadCounterFile, { site: 'SKE' }, { file: new Blob([new Uint8Array(await picture())]) })
    const sent = await report(cast, { email: 'new@reporter.example', fileClaims: [photo.claim] })
    const mail = await house.mail('new@reporter.example')
    expect(mail.subject).toContain(sent.number)
    expect(linkToken(mail.text, 't')).toBe(sent.token)
    const seen = await cast.anybody.must(trackRequest, { token: sent.token })
    expect(seen.progress).toEqual({ step: 'received', sentence: 'We have received it.' })
    expect(seen.files).toHaveLength(1)
    expect(Object.keys(seen).sort()).toEqual([
      'answers',
      'description',
      'files',
      'following',
      'mayAnswer',
      'maySayFixed',
      'maySayNotFixed',
      'mayWrite',
      'messages',
      'number',
      'place',
      'progress',
      'receivedAt',
      'site',
      'steps',
      'summary',
      'toConfirm',
      'toldAgain',
    ])
    expect(Object.keys(seen.site).sort()).toEqual(['code', 'deskEmail', 'deskPhone', 'name'])
    expect(await house.rows('SELECT link_hash FROM request WHERE link_hash = ? OR link_nonce = ?', [sent.token, sent.token])).toEqual([])
  })

  test('corrections keep what the reporter wrote; consequence and urgency give the priority with a sentence', async () => {
    const { id } = await report(cast)
    const sheet = await cast.coordinator.must(triageRequest, { id, version: 1, summary: 'Left sink light out', consequence: 'room', urgency: 'today' })
    expect(sheet).toMatchObject({
      summary: 'Left sink light out',
      writtenSummary: 'The left light over the sink is out',
      priority: 'urgent',
      prioritySentence: 'Urgent, because a room is affected and it has to be done today.',
    })
    expect(sheet.promise).toEqual({ clock: 'working', responseMinutes: 120, completionMinutes: 480 })
    const overridden = await cast.coordinator.call(triageRequest, { id, version: sheet.version, priority: 'deferred' })
    expect(overridden.problem.reasons![0]!.field).toBe('priorityReason')
  })

  test('a question goes to the reporter and the answer comes back; a decline tells the reason; a duplicate follows the other', async () => {
    const asked = await report(cast, { email: 'asked@reporter.example' })
    await cast.coordinator.must(askReporter, { id: asked.id, version: 1, reason: 'Which of the three?' })
    expect((await house.mail('asked@reporter.example', (mail) => mail.text.includes('Which of the three?'))).text).toContain(asked.token)
    expect((await cast.anybody.must(answerQuestion, { token: asked.token, answer: 'The left one.' })).mayAnswer).toBe(false)
    const back = await requestInFull(cast.coordinator, asked.id)
    expect(back.state).toBe('new')
    expect(back.timeline[0]).toMatchObject({ kind: 'request.answer', who: 'Aoife Ashdown', reason: 'The left one.', from: 'asked', to: 'new' })

    const wrong = await report(cast)
    expect((await cast.coordinator.call(declineRequest, { id: wrong.id, version: 1, reason: ' ' })).problem.reasons).toEqual([
      { code: 'reason_missing', sentence: 'Write it in a few words.', field: 'reason' },
    ])
    await cast.coordinator.must(declineRequest, { id: wrong.id, version: 1, reason: 'It is the tenant’s own lamp.' })
    expect((await cast.anybody.must(trackRequest, { token: wrong.token })).progress).toEqual({ step: 'closed', sentence: 'It is the tenant’s own lamp.' })

    const twin = await report(cast)
    await cast.coordinator.must(joinRequest, { id: twin.id, version: 1, toId: asked.id })
    await accepted(cast, asked.id)
    expect((await cast.anybody.must(trackRequest, { token: twin.token })).progress.step).toBe('looking')
  })
})

test('from the report to the charge: everything the order held, worked, checked and charged by share', async () => {
  const request = await report(cast, { email: 'whole@reporter.example' })
  const id = await accepted(cast, request.id)
  const draft = await cast.coordinator.must(orders.readOrder, { id })
  expect(draft).toMatchObject({
    state: 'draft',
    summary: 'The left light over the sink is out',
    contactName: 'Aoife Ashdown',
    priority: 'routine',
    requests: [{ id: request.id }],
  })
  expect((await cast.coordinator.must(readRequest, { id: request.id })).orders).toMatchObject([{ id, state: 'draft' }])

  const incomplete = await cast.coordinator.call(orders.submitOrder, { id, version: draft.version })
  expect(incomplete.status).toBe(422)
  expect(incomplete.problem.reasons!.map((reason) => reason.field).sort()).toEqual(['estimateMinor', 'supervisorId', 'teamId'])
  await cast.coordinator.must(orders.editOrder, {
    id,
    version: draft.version,
    ...complete,
    shares: [
      { payerId: 1, shareBp: 6_000 },
      { payerId: 9, shareBp: 4_000 },
    ],
  })
  await cast.coordinator.must(orders.submitOrder, { id, version: await version(cast, id) })
  expect((await house.mail('ines.ferrall@skerry.example')).text).toContain('The left one of three')
  await cast.approver.must(orders.approveOrder, { id, version: await version(cast, id) })

  const who = await cast.coordinator.must(listCandidates, { orderId: id, start: '2026-11-23T12:00:00Z', end: '2026-11-23T13:00:00Z' })
  expect(who.technicians[0]!.fitness.hasTrade).toBe(true)
  const visitId = await dispatched(cast, id)
  expect((await house.mail('bram.oyelaran@skerry.example')).text).toContain('Getting in')
  expect((await cast.anybody.must(trackRequest, { token: request.token })).progress.sentence).toBe('Scheduled for this morning.')

  expect((await cast.technician.must(listJobs, {})).rows.some((job) => job.visitId === visitId)).toBe(true)
  await cast.technician.must(switchStint, { visitId, kind: 'travel' })
  await cast.technician.must(switchStint, { visitId, kind: 'work' })
  const [part] = await house.rows<{ id: number; cost: number }>(
    "SELECT part.id, average_cost_minor AS cost FROM part JOIN stock_level ON part_id = part.id WHERE code = 'EL-101'",
  )
  await cast.technician.must(usePart, { visitId, partId: part!.id, quantity: '2' })
  await cast.technician.must(addNote, { visitId, text: 'Both tubes were old.' })
  const withPhoto = await cast.technician.must(addJobPhoto, { visitId }, { file: new Blob([new Uint8Array(await picture())]) })
  expect(withPhoto.photos).toHaveLength(1)
  expect(JSON.stringify(withPhoto)).not.toMatch(/[Mm]inor|cost|rate|estimate/)
  const unfinished = await cast.technician.call(finishJob, { visitId, result: 'done' })
  expect(unfinished.problem.reasons!.map((reason) => reason.field)).toEqual(['symptom', 'cause', 'fix'])
  expect((await cast.technician.must(readJob, { visitId })).visitState).toBe('on_site')
  await cast.technician.must(finishJob, { visitId, result: 'done', symptom: 'No power', cause: 'Wear', fix: 'Replaced' })

  const done = await cast.coordinator.must(orders.readOrder, { id })
  expect(done.state).toBe('done')
  // Bram Oyelaran, 48.00 an hour, 5-minute step: two stints of a moment each are 5 minutes each.
  expect(done.costs.map((line) => [line.kind, line.cost])).toEqual([
    ['labour', 400],
    ['labour', 400],
    ['parts', 2 * part!.cost],
  ])
  await cast.coordinator.must(orders.checkOrder, { id, version: done.version })
  expect((await house.mail('whole@reporter.example', (mail) => mail.text.includes('It is done'))).text).toContain(request.token)
  const { charges: toCome } = await cast.clerk.must(previewCharges, { id })
  await cast.clerk.must(orders.postOrder, { id, version: await version(cast, id) })

  const closed = await orderInFull(cast.coordinator, id)
  expect(closed.state).toBe('closed')
  // What was shown before posting is what was posted, to the cent.
  expect(closed.postings[0]!.charges.map(({ id: _, ...charge }) => charge)).toEqual(toCome)
  const parts = 2 * part!.cost
  const nets = closed.postings[0]!.charges.map((charge) => charge.netMinor)
  expect(nets.reduce((sum, net) => sum + net, 0)).toBe(800 + parts + Math.round(parts * 0.05))
  const tenant = closed.postings[0]!.charges[1]!
  expect(tenant.taxMinor).toBe(Math.round(tenant.netMinor * 0.23))
  const statement = await cast.clerk.must(readStatement, { payerId: 9, month: '2026-11' })
  const job = statement.jobList.find((one) => one.orderId === id)!
  expect(job.lines.map((line) => line.kind)).toEqual(['labour', 'labour', 'parts'])
  expect(job.lines.reduce((sum, line) => sum + line.netMinor, 0)).toBe(job.netMinor)
  expect(
    closed.timeline
      .map((entry) => entry.kind)
      .reverse()
      .filter((kind) => kind.startsWith('order.') || kind.startsWith('request.')),
  ).toEqual([
    'request.report',
    'request.edit',
    'order.create',
    'request.accept',
    'order.edit',
    'order.submit',
    'order.approve',
    'order.dispatch',
    'order.start',
    'order.finish',
    'order.check',
    'order.post',
  ])
})

test('a vendor works through the pass and bills; the payable is written once, and the reversal takes all of it back', async () => {
  const { id } = await orderAt(cast, 'ready')
  await dispatched(cast, id, { vendorId: 8 })
  const mail = await house.mail('jobs@standby-sound-power.example')
  const token = linkToken(mail.text, 'p')
  expect(await house.rows('SELECT id FROM vendor_pass WHERE token_hash = ?', [token])).toEqual([])
  await cast.anybody.must(switchVendorStint, { token, kind: 'work' })
  await cast.anybody.must(finishVendorJob, { token, result: 'done', symptom: 'No power', cause: 'Wear', fix: 'Replaced' })
  const early = await cast.coordinator.call(orders.checkOrder, { id, version: await version(cast, id) })
  expect(early.problem.reasons!.map((reason) => reason.code)).toEqual(
    ['hours_missing', 'bill_missing'].filter((code) => early.problem.reasons!.some((reason) => reason.code === code)),
  )
  expect(early.problem.reasons!.some((reason) => reason.code === 'bill_missing')).toBe(true)
  const bill = {
    number: 'SSP-1',
    taxBp: 1_350,
    lines: [
      { description: 'Call-out', quantity: '1', unitPriceMinor: 14_000 },
      { description: 'Work', quantity: '1.5', unitPriceMinor: 9_800 },
    ],
  }
  await cast.anybody.must(enterBill, { token, ...bill })
  expect((await cast.anybody.call(enterBill, { token, ...bill })).problem.reasons![0]!.code).toBe('bill_there')
  await cast.coordinator.must(orders.checkOrder, { id, version: await version(cast, id) })
  await cast.clerk.must(orders.postOrder, { id, version: await version(cast, id) })
  expect(await house.rows('SELECT net_minor AS net, tax_minor AS tax FROM payable WHERE order_id = ?', [id])).toEqual([{ net: 28_700, tax: 3_875 }])
  await cast.clerk.must(orders.reverseOrder, { id, version: await version(cast, id), reason: 'Billed to the wrong payer.' })
  const sheet = await cast.coordinator.must(orders.readOrder, { id })
  expect(sheet.state).toBe('checked')
  expect(sheet.postings.map((posting) => posting.kind)).toEqual(['posting', 'reversal'])
  const [balance] = await house.rows<{ left: string }>(
    'SELECT SUM(debit_minor - credit_minor) AS `left` FROM journal_entry JOIN posting ON posting.id = posting_id WHERE order_id = ? AND account LIKE ?',
    [id, 'payable:%'],
  )
  expect(Number(balance!.left)).toBe(0)
  await cast.clerk.must(orders.postOrder, { id, version: sheet.version })
  expect((await cast.coordinator.must(orders.readOrder, { id })).postings.map((posting) => posting.round)).toEqual([1, 1, 2])
})

describe('moves around the way', () => {
  test('hold stops the target clock, resume gives back what was left, recall takes visits back', async () => {
    const { id } = await orderAt(cast, 'dispatched')
    const before = await cast.coordinator.must(orders.readOrder, { id })
    await cast.coordinator.must(orders.holdOrder, { id, version: before.version, holdReason: 'part', reason: 'Tube on order' })
    const held = await cast.coordinator.must(orders.readOrder, { id })
    expect(held).toMatchObject({ state: 'on_hold', holdReason: 'part' })
    expect(held.target.stoppedAt).not.toBeNull()
    await cast.coordinator.must(orders.resumeOrder, { id, version: held.version })
    const resumed = await cast.coordinator.must(orders.readOrder, { id })
    expect(resumed.state).toBe('dispatched')
    expect(resumed.target.stoppedAt).toBeNull()
    expect(new Date(resumed.target.completionDueAt).getTime()).toBeGreaterThanOrEqual(new Date(before.target.completionDueAt).getTime())
    await cast.coordinator.must(orders.recallOrder, { id, version: resumed.version })
    expect((await cast.coordinator.must(orders.readOrder, { id })).visits.map((visit) => visit.state)).toEqual(['recalled'])
  })

  test('send back, cancel and reopen need reasons and keep them', async () => {
    const { id } = await orderAt(cast, 'to_approve')
    expect((await cast.approver.call(orders.sendBackOrder, { id, version: await version(cast, id) })).problem.reasons![0]!.field).toBe('reason')
    await cast.approver.must(orders.sendBackOrder, { id, version: await version(cast, id), reason: 'Say which lamp.' })
    expect((await cast.coordinator.call(orders.cancelOrder, { id, version: await version(cast, id), reason: '' })).status).toBe(422)
    await cast.coordinator.must(orders.cancelOrder, { id, version: await version(cast, id), reason: 'Works again.' })
    await cast.coordinator.must(orders.reopenOrder, { id, version: await version(cast, id), reason: 'It does not.' })
    const sheet = await orderInFull(cast.coordinator, id)
    expect(sheet.state).toBe('draft')
    expect(sheet.timeline.filter((entry) => entry.reason).map((entry) => entry.reason)).toEqual(['It does not.', 'Works again.', 'Say which lamp.'])
  })

  test('a return visit brings the order back to the Desk, and the second visit is a return', async () => {
    const { id, visitId } = await orderAt(cast, 'dispatched')
    await cast.technician.must(switchStint, { visitId, kind: 'work' })
    await cast.technician.must(finishJob, { visitId, result: 'return', note: 'Needs the ladder.' })
    expect((await cast.coordinator.must(orders.readOrder, { id })).state).toBe('ready')
    const second = await dispatched(cast, id)
    expect((await cast.coordinator.must(orders.readOrder, { id })).visits.find((visit) => visit.id === second)!.kind).toBe('return')
    await worked(cast, second)
    await cast.coordinator.must(orders.reopenOrder, { id, version: await version(cast, id), reason: 'Out again.' })
    expect((await cast.coordinator.must(orders.readOrder, { id })).state).toBe('ready')
  })

  test('what was approved does not change behind the approver’s back', async () => {
    const { id } = await orderAt(cast, 'ready')
    const reply = await cast.coordinator.call(orders.editOrder, { id, version: await version(cast, id), estimateMinor: 999_999 })
    expect(reply.problem.reasons).toMatchObject([{ code: 'agreed', field: 'estimateMinor' }])
  })

  test('over the limit of one approver, within that of the other', async () => {
    const { id } = await orderAt(cast, 'draft')
    await cast.coordinator.must(orders.editOrder, { id, version: await version(cast, id), ...complete, estimateMinor: 250_001 })
    await cast.coordinator.must(orders.submitOrder, { id, version: await version(cast, id) })
    expect((await cast.approver.call(orders.approveOrder, { id, version: await version(cast, id) })).problem.reasons).toMatchObject([{ code: 'over_limit' }])
    const head = await new Client(server.url).signIn('osric.vane')
    await head.must(orders.approveOrder, { id, version: await version(cast, id) })
  })

  test('a draft with nothing recorded is discarded and brought back', async () => {
    const { id } = await orderAt(cast, 'draft')
    await cast.coordinator.must(orders.discardOrder, { id, version: await version(cast, id) })
    expect((await cast.coordinator.must(orders.listOrders, { station: 'planning', limit: 100 })).rows.some((row) => row.id === id)).toBe(false)
    await cast.coordinator.must(orders.restoreOrder, { id, version: await version(cast, id) })
    expect((await cast.coordinator.must(orders.listOrders, { station: 'planning', limit: 100 })).rows.some((row) => row.id === id)).toBe(true)
  })
})

test('statements come as PDF and as CSV that a spreadsheet cannot run', async () => {
  const { rows } = await cast.clerk.must(listStatements, { month: '2026-10' })
  const which = { payerId: rows[0]!.payerId, month: '2026-10' }
  const pdf = await cast.clerk.call(downloadStatementPdf, which)
  expect(pdf.headers.get('content-type')).toBe('application/pdf')
  expect(pdf.text.slice(0, 5)).toBe('%PDF-')
  await house.rows("UPDATE work_order SET summary = '=1+1' WHERE id = (SELECT order_id FROM charge WHERE payer_id = ? AND month = '2026-10' LIMIT 1)", [
    which.payerId,
  ])
  const csv = await cast.clerk.call(downloadStatementCsv, which)
  expect(csv.text.split('\r\n')[0]).toBe('statement,order,summary,place,posted,kind,line,quantity,unit,unit cost,cost,share %,markup %,net,tax %,currency')
  expect(csv.text).toContain(",'=1+1,")
  const { netMinor } = await cast.clerk.must(readStatement, which)
  const lines = csv.text.trim().split('\r\n').slice(1)
  const sum = lines.reduce((total, line) => total + Math.round(Number(line.split(',').at(-3)) * 100), 0)
  expect(sum).toBe(netMinor)
})

test('a pass that was taken back, has expired or is made up opens nothing', async () => {
  const { id } = await orderAt(cast, 'ready')
  await dispatched(cast, id, { vendorId: 9 })
  const token = linkToken((await house.mail('jobs@ohm-and-sons.example')).text, 'p')
  expect((await cast.anybody.must(readPass, { token })).number).toMatch(/^W-/)
  const [pass] = await house.rows<{ id: number }>('SELECT vendor_pass.id FROM vendor_pass JOIN visit ON visit.id = visit_id WHERE order_id = ?', [id])
  await house.rows("UPDATE vendor_pass SET expires_at = '2026-01-01' WHERE id = ?", [pass!.id])
  expect((await cast.anybody.call(readPass, { token })).status).toBe(404)
  await house.rows("UPDATE vendor_pass SET expires_at = '2027-01-01' WHERE id = ?", [pass!.id])
  expect((await cast.anybody.call(readPass, { token })).status).toBe(200)
  await cast.coordinator.must(revokePass, { id: pass!.id })
  for (const made of [token, 'x'.repeat(43)]) {
    expect((await cast.anybody.call(readPass, { token: made })).status).toBe(404)
    expect((await cast.anybody.call(switchVendorStint, { token: made, kind: 'work' })).status).toBe(404)
  }
  const request = await report(cast)
  await house.rows("UPDATE request SET link_expires_at = '2026-01-01' WHERE id = ?", [request.id])
  expect((await cast.anybody.call(trackRequest, { token: request.token })).status).toBe(404)
})
