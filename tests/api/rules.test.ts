import { readSelf } from '#contract/people'
import { decideApprovalByLink, readApproval } from '#contract/approvals'
import { finishJob, readJob, switchStint } from '#contract/field'
import {
  approveOrder,
  cancelOrder,
  discardOrder,
  editOrder,
  joinGroup,
  leaveGroup,
  recallOrder,
  restoreOrder,
  sendBackOrder,
  submitOrder,
} from '#contract/orders'
import { readNeededReason } from '#contract/lists'
import { editOwn, editOwnField, listOwnFields } from '#contract/own'
import { endAway, listAway, saveAway } from '#contract/people'
import { acceptRequest, readRequest, triageRequest } from '#contract/requests'
import { dropPromiseException, readRuleBook, saveCalendar, saveConsent, savePromiseException, saveRules, tryReasonRules } from '#contract/setup'
import type { RuleBook, RuleSection } from '#core/orders'
import { DEFAULT_RULES } from '#core/orders'
import { accepted, approved, castAt, Client, complete, dispatched, House, orderInFull, report, version } from '../kit'
import type { Cast, Running } from '../kit'

/** The rules a site decides by: set in Setup, in force at once, on every path. */
let house: House
let server: Running
let cast: Cast
let admin: Client
let osric: Client
const SKE = 1
const account = async (email: string) => (await house.rows<{ id: number }>('SELECT id FROM account WHERE email LIKE ?', [`${email}%`]))[0]!.id
const INES = 'ines.ferrall@skerry.example'
const OSRIC = 'osric.vane@skerry.example'

beforeAll(async () => {
  house = await House.open('rules', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
  admin = await new Client(server.url).signIn('wendeline.stroud')
  osric = await new Client(server.url).signIn('osric.vane')
})
afterAll(() => house?.close())

async function set<Section extends RuleSection>(section: Section, content: RuleBook[Section]) {
  const { versions } = await admin.must(readRuleBook, { siteId: SKE })
  return admin.must(saveRules, { siteId: SKE, version: versions[section], section, content } as never)
}
/** A draft with everything an approver needs. */
async function draft(more: object = {}): Promise<number> {
  const id = await accepted(cast, (await report(cast)).id)
  await cast.coordinator.must(editOrder, { id, version: await version(cast, id), ...complete, ...more })
  return id
}
const sheet = (id: number) => orderInFull(cast.coordinator, id)
const submitted = async (id: number) => cast.coordinator.must(submitOrder, { id, version: await version(cast, id) })
const approves = async (client: Client, id: number) => client.call(approveOrder, { id, version: await version(cast, id) })

describe('the book', () => {
  test('how the site writes is said to whoever signs in, from the next page on; a way that there is not is refused', async () => {
    const { versions } = await admin.must(readRuleBook, { siteId: SKE })
    const written = async () => {
      const { locale, clock, weekFrom } = (await cast.coordinator.must(readSelf, {})).site
      return { locale, clock, weekFrom }
    }
    const usual = await written()
    expect(usual).toEqual({ locale: 'en-IE', clock: 24, weekFrom: 1 })
    const content = { locale: 'en-US', clock: 12, weekFrom: 7 } as const
    const { versions: then } = await admin.must(saveRules, { siteId: SKE, version: versions.writing, section: 'writing', content })
    expect(await written()).toEqual(content)
    const odd = await admin.call(saveRules, { siteId: SKE, version: then.writing, section: 'writing', content: { ...content, locale: 'xx-YY' } })
    expect(odd.status).toBe(400)
    expect((await cast.coordinator.call(saveRules, { siteId: SKE, version: then.writing, section: 'writing', content: usual })).status).toBe(403)
    await admin.must(saveRules, { siteId: SKE, version: then.writing, section: 'writing', content: usual })
    expect(await written()).toEqual(usual)
  })

  test('a stale page is told so, and half a section or an unknown person never gets in', async () => {
    const book = await admin.must(readRuleBook, { siteId: SKE })
    const stale = await admin.call(saveRules, { siteId: SKE, version: book.versions.reasons - 1, section: 'reasons', content: [] })
    expect(stale.status).toBe(409)
    const half = await admin.call(saveRules, { siteId: SKE, version: book.versions.matrix, section: 'matrix', content: { nobody: {} } as never })
    expect(half.status).toBe(400)
    const gone = await admin.call(saveRules, {
      siteId: SKE,
      version: book.versions.approvals,
      section: 'approvals',
      content: [{ when: {}, asks: [{ accountId: 9_999 }], inOrder: false }],
    })
    expect(gone.problem.reasons![0]!.code).toBe('approver_unknown')
    const elsewhere = (await house.rows<{ id: number }>('SELECT id FROM place WHERE site_id <> ? LIMIT 1', [SKE]))[0]!.id
    const place = await admin.call(saveRules, {
      siteId: SKE,
      version: book.versions.reasons,
      section: 'reasons',
      content: [{ move: 'recall', when: { placeId: elsewhere }, answers: [] }],
    })
    expect(place.problem.reasons![0]!.code).toBe('place_unknown')
    const bare = await admin.call(saveRules, {
      siteId: SKE,
      version: book.versions.completeness,
      section: 'completeness',
      content: { ...DEFAULT_RULES.completeness, repair: [] },
    })
    expect(bare.problem.reasons![0]!.sentence).toContain('always needed')
    expect((await admin.must(readRuleBook, { siteId: SKE })).versions).toEqual(book.versions)
    expect((await cast.coordinator.call(saveRules, { siteId: SKE, version: book.versions.reasons, section: 'reasons', content: [] })).status).toBe(403)
  })

  test('two people change different sections without meeting; the same section is refused to the second', async () => {
    const { versions, book } = await admin.must(readRuleBook, { siteId: 2 })
    const save = (section: RuleSection, content: unknown) => admin.call(saveRules, { siteId: 2, version: versions[section], section, content })
    const both = await Promise.all([save('reasons', []), save('escalations', book.escalations)])
    expect(both.map((answer) => answer.status)).toEqual([200, 200])
    expect((await save('reasons', [])).status).toBe(409)
    expect((await admin.must(readRuleBook, { siteId: 2 })).versions).toEqual({
      ...versions,
      reasons: versions.reasons + 1,
      escalations: versions.escalations + 1,
    })
  })

  test('what is kept and cannot be read is not in force: the usual rules are, and Setup says so', async () => {
    await set('approvals', [{ when: {}, asks: ['supervisor'], inOrder: false }])
    await house.rows('UPDATE rule_section SET content = \'[{"asks": "everybody"}]\' WHERE site_id = ? AND section = \'approvals\'', [SKE])
    const broken = await admin.must(readRuleBook, { siteId: SKE })
    expect([broken.unreadable, broken.book.approvals]).toEqual([['approvals'], []])
    await set('approvals', [])
    expect((await admin.must(readRuleBook, { siteId: SKE })).unreadable).toEqual([])
  })

  test('one site’s rules are not the other’s', async () => {
    await set('reasons', [{ move: 'submit', when: { placeId: 1 }, answers: [] }])
    expect((await admin.must(readRuleBook, { siteId: 2 })).book.reasons).toEqual([])
    await set('reasons', [])
  })
})

describe('reasons', () => {
  test('in force at once: at the desk and by link; the Sheet knows before anything is pressed', async () => {
    const id = await draft()
    await submitted(id)
    const { number } = await sheet(id)
    const { text } = await house.mail(INES, (mail) => mail.subject.includes(number))
    const token = /\/a\/([A-Za-z0-9_-]{43})/.exec(text)![1]!
    await set('reasons', [{ move: 'approve', when: { amountFromMinor: 10_000 }, answers: ['Worth it', 'Must be done'] }])
    expect((await sheet(id)).facts.rules.reasons).toHaveLength(1)
    const without = await approves(cast.approver, id)
    expect(without.problem.reasons).toEqual([{ code: 'reason_missing', sentence: '“Approve” needs a reason in writing.', field: 'reason' }])
    const page = await cast.anybody.must(readApproval, { token })
    const byLink = await cast.anybody.call(decideApprovalByLink, { token, version: page.version, verdict: 'approve', note: 'Fine' })
    expect(byLink.problem.reasons![0]!.code).toBe('reason_not_listed')
    expect((await sheet(id)).state).toBe('to_approve')
    await cast.anybody.must(decideApprovalByLink, { token, version: page.version, verdict: 'approve', note: 'Worth it: the whole floor waits' })
    expect((await sheet(id)).state).toBe('ready')
    await set('reasons', [])
  })

  test('asked for by a field the site has added, on the Sheet, in lists and for many at once', async () => {
    const fields = (await admin.must(listOwnFields, {})).rows
    const field = fields.find(({ label }) => label === 'Plant stands still')!
    const id = await draft()
    await set('reasons', [{ move: 'submit', when: { own: { fieldId: field.id, from: 2 } }, answers: [] }])
    const asked = () => cast.coordinator.must(readNeededReason, { move: 'submit', ids: String(id) })
    expect((await asked()).needed).toBe(false)
    await cast.coordinator.must(editOwn, { kind: 'orders', id, version: 0, [`own${field.id}`]: 2.5 } as never)
    expect((await asked()).needed).toBe(true)
    expect((await sheet(id)).facts.own[field.id]).toBe(2.5)
    expect((await admin.must(readRuleBook, { siteId: SKE })).own.map(({ label }) => label)).toContain('Plant stands still')
    const refused = await cast.coordinator.call(submitOrder, { id, version: await version(cast, id) })
    expect(refused.problem.reasons).toEqual([{ code: 'reason_missing', sentence: '“Submit for approval” needs a reason in writing.', field: 'reason' }])
    const { number } = await sheet(id)
    const { moves } = await admin.must(tryReasonRules, {
      siteId: SKE,
      number,
      rules: [{ move: 'submit', when: { own: { fieldId: field.id, from: 2 } }, answers: [] }],
    })
    expect(moves.find(({ move }) => move === 'submit')!.because).toEqual([
      '“Submit for approval” of an order with Plant stands still from 2 h: a reason in free words is needed.',
    ])
    const { versions } = await admin.must(readRuleBook, { siteId: SKE })
    const unknown = await admin.call(saveRules, {
      siteId: SKE,
      version: versions.reasons,
      section: 'reasons',
      content: [{ move: 'submit', when: { own: { fieldId: fields.find(({ kind }) => kind === 'assets')!.id, filled: true } }, answers: [] }],
    })
    expect(unknown.problem.reasons![0]!.code).toBe('own_unknown')
    // Out of use, it holds for nothing.
    await admin.must(editOwnField, { id: field.id, version: field.version, retired: true })
    expect((await asked()).needed).toBe(false)
    await set('reasons', [])
  })

  test('tried out on an order before anybody meets it, and trying changes nothing', async () => {
    const id = await draft()
    const { number } = await sheet(id)
    const before = await admin.must(readRuleBook, { siteId: SKE })
    const tried = await admin.must(tryReasonRules, {
      siteId: SKE,
      number: number.toLowerCase(),
      rules: [{ move: 'submit', when: { kinds: ['repair'] }, answers: ['Now'] }],
    })
    expect(tried.moves.find((move) => move.move === 'submit')).toEqual({
      move: 'submit',
      label: 'Submit for approval',
      needed: true,
      answers: ['Now'],
      because: ['“Submit for approval” of an order of kind Repair: a reason from the list is needed: Now.'],
    })
    expect(tried.moves.find((move) => move.move === 'cancel')).toMatchObject({ needed: true, answers: [] })
    expect((await admin.must(readRuleBook, { siteId: SKE })).versions).toEqual(before.versions)
    const unknown = await admin.call(tryReasonRules, { siteId: SKE, number: 'W-1', rules: [] })
    expect(unknown.problem.reasons![0]!.field).toBe('number')
    await submitted(id)
  })
})

describe('completeness', () => {
  test('what Setup asks for is missing at its field, and only for that kind of work', async () => {
    await set('completeness', { ...DEFAULT_RULES.completeness, repair: [...DEFAULT_RULES.completeness.repair, 'hazards', 'access'] })
    const id = await draft()
    const refused = await cast.coordinator.call(submitOrder, { id, version: await version(cast, id) })
    expect(refused.problem.reasons!.map((reason) => reason.field)).toEqual(['hazardSeverity', 'access'])
    await cast.coordinator.must(editOrder, { id, version: await version(cast, id), kind: 'improvement' })
    await submitted(id)
    await set('completeness', DEFAULT_RULES.completeness)
  })

  test('less can be asked for too', async () => {
    await set('completeness', { ...DEFAULT_RULES.completeness, repair: ['summary', 'place', 'priority', 'payer', 'estimate'] })
    const id = await accepted(cast, (await report(cast)).id)
    await cast.coordinator.must(editOrder, { id, version: await version(cast, id), estimateMinor: 5_000 })
    await submitted(id)
    await set('completeness', DEFAULT_RULES.completeness)
  })
})

describe('priority and promises', () => {
  test('the table of the site decides, a high hazard never makes less than an emergency, and no hand makes it less', async () => {
    const { id } = await report(cast)
    const edit = async (more: object) =>
      cast.coordinator.call(triageRequest, { id, version: (await cast.coordinator.must(readRequest, { id })).version, ...more })
    await set('matrix', { ...DEFAULT_RULES.matrix, room: { ...DEFAULT_RULES.matrix.room, today: 'deferred' } })
    expect((await edit({ consequence: 'room', urgency: 'today' })).body.priority).toBe('deferred')
    await set('matrix', DEFAULT_RULES.matrix)
    expect((await edit({ hazardSeverity: 'critical', hazardLikelihood: 'probable' })).body.priority).toBe('emergency')
    const lower = await edit({ priority: 'routine', priorityReason: 'It is not that bad' })
    expect(lower.problem.reasons![0]!.code).toBe('hazard_high')
    expect((await edit({ hazardSeverity: 'none', hazardLikelihood: null })).body.priority).toBe('urgent')
    expect((await edit({ hazardSeverity: 'catastrophic', hazardLikelihood: 'frequent', categoryId: 1, payerId: 3 })).body.priority).toBe('emergency')
    const { orderId } = await cast.coordinator.must(acceptRequest, { id, version: (await cast.coordinator.must(readRequest, { id })).version })
    expect(await sheet(orderId)).toMatchObject({ priority: 'emergency', hazardSeverity: 'catastrophic', hazardLikelihood: 'frequent' })
  })

  test('a category can promise something else; promises already made stay', async () => {
    const before = await draft()
    const old = (await sheet(before)).target
    const [category] = await house.rows<{ id: number }>('SELECT id FROM category WHERE id = 1')
    const { priority } = await sheet(before)
    const { exceptions } = await admin.must(savePromiseException, {
      siteId: SKE,
      categoryId: category!.id,
      priority: priority!,
      clock: 'continuous',
      responseMinutes: 10,
      completionMinutes: 60,
    })
    const id = await accepted(cast, (await report(cast)).id)
    const { target } = await sheet(id)
    expect(target.clock).toBe('continuous')
    expect(new Date(target.completionDueAt).getTime() - new Date(target.startAt).getTime()).toBe(3_600_000)
    expect((await sheet(before)).target).toEqual(old)
    const wrong = await admin.call(savePromiseException, {
      siteId: SKE,
      categoryId: 1,
      priority: 'routine',
      clock: 'working',
      responseMinutes: 60,
      completionMinutes: 10,
    })
    expect(wrong.problem.reasons![0]!.sentence).toBe('Finishing is promised no earlier than responding.')
    await admin.must(dropPromiseException, { siteId: SKE, id: exceptions.find((one) => one.categoryId === 1)!.id })
    expect((await sheet(await accepted(cast, (await report(cast)).id))).target.clock).toBe(old.clock)
  })

  test('working hours: what cannot be is refused, what can counts from the next promise on', async () => {
    const { calendarVersion: now, calendar } = await admin.must(readRuleBook, { siteId: 2 })
    const save = (week: typeof calendar.week, holidays = calendar.holidays) => admin.call(saveCalendar, { siteId: 2, version: now, week, holidays })
    const days = (...stretches: { from: string; to: string }[]) => [stretches, ...calendar.week.slice(1)]
    expect((await save(days({ from: '12:00', to: '08:00' }))).problem.reasons![0]!.sentence).toBe('Hours from 12:00 to 08:00 end before they begin.')
    expect((await save(days({ from: '08:00', to: '13:00' }, { from: '12:00', to: '17:00' }))).problem.reasons![0]!.code).toBe('hours_overlap')
    expect((await save(calendar.week.map(() => []))).problem.reasons![0]!.code).toBe('never_open')
    expect((await save(calendar.week, ['2026-02-30'])).problem.reasons![0]!.sentence).toBe('2026-02-30 is not a day of the calendar.')
    const saved = await save(days({ from: '13:00', to: '17:00' }, { from: '08:00', to: '12:00' }), ['2026-12-24'])
    expect(saved.body.calendar.week[0]).toEqual([
      { from: '08:00', to: '12:00' },
      { from: '13:00', to: '17:00' },
    ])
    expect(saved.body.calendar.holidays).toEqual(['2026-12-24'])
  })
})

describe('who agrees', () => {
  test('one after the other: not before one’s turn, and ready only after the last', async () => {
    await set('approvals', [{ when: { amountFromMinor: 15_000 }, asks: [{ accountId: await account(OSRIC) }], inOrder: true }])
    const id = await draft()
    expect((await sheet(id)).agreements.map((one) => one.why)).toEqual([
      'Osric Vane agrees to every order from 150.00.',
      'Somebody whose limit covers 200.00 approves it.',
    ])
    await submitted(id)
    const { number } = await sheet(id)
    await house.mail(OSRIC, (mail) => mail.subject.includes(number) && mail.text.includes('Osric Vane agrees to every order from 150.00.'))
    const early = await approves(cast.approver, id)
    expect(early.problem.reasons).toEqual([{ code: 'not_your_turn', sentence: 'Osric Vane agrees first; then it is your turn.' }])
    // Osric’s limit covers it as well: his one press gives both.
    expect((await approves(osric, id)).body.state).toBe('ready')
    expect((await sheet(id)).approvals.map((one) => [one.decidedBy, one.verdict])).toEqual([
      ['Osric Vane', 'approved'],
      ['Osric Vane', 'approved'],
    ])
    await set('approvals', [])
  })

  test('several at once: each gives their own; the next is told when the turn comes', async () => {
    await set('approvals', [{ when: {}, asks: [{ accountId: await account(INES) }, { accountId: await account(OSRIC) }], inOrder: true }])
    const id = await draft({ estimateMinor: 900_000 })
    await submitted(id)
    expect((await approves(osric, id)).problem.reasons![0]!.code).toBe('not_your_turn')
    const first = await approves(cast.approver, id)
    expect(first.body.state).toBe('to_approve')
    const { number, agreements } = await sheet(id)
    expect(agreements.map((one) => one.decided)).toEqual([true, false, false])
    await house.mail(OSRIC, (mail) => mail.subject.includes(number))
    // Over her limit: the last word is not hers, and a second press gives nothing.
    expect((await approves(cast.approver, id)).problem.reasons![0]!.code).toBe('over_limit')
    expect((await approves(osric, id)).body.state).toBe('ready')
    await set('approvals', [])
  })

  test('sent back by one, all are asked again; a rule changed meanwhile counts from the next time', async () => {
    await set('approvals', [{ when: {}, asks: [{ accountId: await account(OSRIC) }], inOrder: false }])
    const id = await draft()
    await submitted(id)
    expect((await approves(cast.approver, id)).body.state).toBe('to_approve')
    await set('approvals', [])
    await osric.must(sendBackOrder, { id, version: await version(cast, id), reason: 'Too much for this.' })
    await submitted(id)
    expect((await approves(cast.approver, id)).body.state).toBe('ready')
  })

  test('a payer consents above their amount, and the budget says what is left', async () => {
    await admin.must(saveConsent, { siteId: SKE, payerId: 3, accountId: await account(OSRIC), aboveMinor: 15_000 })
    const half = await admin.call(saveConsent, { siteId: SKE, payerId: 3, accountId: null, aboveMinor: 15_000 })
    expect(half.problem.reasons![0]!.field).toBe('accountId')
    const id = await draft()
    await submitted(id)
    expect((await sheet(id)).agreements[0]!.why).toBe('Osric Vane consents for Deep Corals to more than 150.00; 200.00 would be theirs.')
    expect((await approves(cast.approver, id)).body.state).toBe('to_approve')
    const committed = async () => (await sheet(id)).budgets.find((one) => one.payerId === 3)!
    const before = await committed()
    expect((await approves(osric, id)).body.state).toBe('ready')
    expect((await committed()).committedMinor).toBe(before.committedMinor + 20_000)
    const [sum] = await house.rows<{ net: string }>(
      "SELECT SUM(CASE p.kind WHEN 'reversal' THEN -ABS(c.net_minor) ELSE c.net_minor END) AS net FROM charge c JOIN posting p ON p.id = c.posting_id WHERE c.payer_id = 3",
    )
    expect(before).toMatchObject({ budgetMinor: 2_000_000, chargedMinor: Number(sum!.net) })
    await admin.must(saveConsent, { siteId: SKE, payerId: 3, accountId: null, aboveMinor: null })
  })

  test('away: the deputy is told, decides within what is lent, and it is recorded; everybody sees who is away', async () => {
    await set('approvals', [{ when: {}, asks: [{ accountId: await account(OSRIC) }], inOrder: true }])
    const period = { fromAt: '2026-11-23T09:00:00Z', untilAt: '2026-11-28T09:00:00Z' }
    const wrong = await osric.call(saveAway, { deputyId: await account('maren.quill'), ...period })
    expect(wrong.problem.reasons![0]!.code).toBe('deputy_no_approver')
    expect((await osric.call(saveAway, { deputyId: await account(OSRIC), ...period })).problem.reasons![0]!.code).toBe('own_deputy')
    expect((await cast.coordinator.call(saveAway, { accountId: await account(OSRIC), deputyId: await account(INES), ...period })).status).toBe(403)
    const { rows } = await osric.must(saveAway, { deputyId: await account(INES), ...period })
    expect((await osric.call(saveAway, { deputyId: await account(INES), ...period })).problem.reasons![0]!.code).toBe('away_twice')
    expect((await cast.coordinator.must(listAway, {})).rows).toEqual(rows)
    const id = await draft({ estimateMinor: 900_000 })
    expect((await sheet(id)).approvers).toMatchObject([{ name: 'Osric Vane', deputy: 'Ines Ferrall', awayUntil: '2026-11-28T09:00:00.000Z' }])
    await submitted(id)
    await house.mail(INES, (mail) => mail.subject.includes('To approve') && mail.text.includes('9,000.00'))
    expect((await approves(cast.approver, id)).body.state).toBe('ready')
    expect((await sheet(id)).approvals.map((one) => one.actingFor)).toEqual(['Osric Vane', 'Osric Vane'])
    await osric.must(endAway, { id: rows[0]!.id })
    // The week after next stays noted.
    expect((await cast.coordinator.must(listAway, {})).rows.map((row) => row.now)).toEqual([false])
    const next = await draft({ estimateMinor: 900_000 })
    await submitted(next)
    expect((await approves(cast.approver, next)).status).toBe(422)
    await set('approvals', [])
  })
})

describe('targets', () => {
  const told = async (id: number) =>
    (await house.rows<{ kind: string }>("SELECT kind FROM event WHERE order_id = ? AND kind IN ('order.close_to', 'order.past') ORDER BY id", [id])).map(
      (row) => row.kind,
    )
  const wait = async (id: number, kinds: string[]) => {
    for (let tries = 0; tries < 150; tries++) {
      if ((await told(id)).length >= kinds.length) break
      await new Promise((resolve) => setTimeout(resolve, 100))
    }
    expect(await told(id)).toEqual(kinds)
  }

  /** Another order runs past its target and is told of: whatever was to be told before has been. */
  const watchedAgain = async () => {
    const other = await draft()
    await house.rows("UPDATE work_order SET close_at = '2026-11-23 10:00:00', completion_due_at = '2026-11-28 10:00:00' WHERE id = ?", [other])
    await wait(other, ['order.close_to'])
  }

  test('close and past are events, each once, with notices and mails to those the rules name', async () => {
    await set('escalations', [
      { at: 'close', when: {}, tell: ['lead'] },
      { at: 'past', when: {}, tell: ['managers', { accountId: await account(INES) }] },
    ])
    const id = await draft()
    const { number } = await sheet(id)
    await house.rows("UPDATE work_order SET close_at = '2026-11-23 10:00:00', completion_due_at = '2026-11-28 10:00:00' WHERE id = ?", [id])
    await wait(id, ['order.close_to'])
    await house.rows("UPDATE work_order SET completion_due_at = '2026-11-23 10:05:00' WHERE id = ?", [id])
    await wait(id, ['order.close_to', 'order.past'])
    await house.mail(INES, (mail) => mail.subject.startsWith(`${number} is past its target`))
    const notices = await house.rows<{ email: string; sentence: string }>(
      'SELECT a.email, n.sentence FROM notice n JOIN account a ON a.id = n.account_id JOIN event e ON e.id = n.event_id WHERE n.order_id = ? AND e.kind IN (?, ?) ORDER BY n.id',
      [id, 'order.close_to', 'order.past'],
    )
    expect(notices.map((one) => one.email.split('@')[0])).toEqual(['maren.quill', 'ines.ferrall', 'yusuf.adeyemi-rourke'])
    await watchedAgain()
    expect(await told(id)).toHaveLength(2)
  })

  test('a stopped clock tells nobody', async () => {
    const id = await draft()
    await house.rows(
      "UPDATE work_order SET clock_stopped_at = '2026-11-23 09:00:00', close_at = '2026-11-23 10:00:00', completion_due_at = '2026-11-23 10:01:00' WHERE id = ?",
      [id],
    )
    await watchedAgain()
    expect(await told(id)).toEqual([])
  })
})

describe('groups', () => {
  test('taking a member out leaves it whole; discarding is another act, for drafts with nothing on them, and is undone', async () => {
    const [lead, member] = [await draft(), await draft()]
    const before = await sheet(member)
    await cast.coordinator.must(joinGroup, { id: member, version: before.version, leadId: lead })
    expect((await sheet(lead)).members.map((one) => one.id)).toEqual([member])
    const left = await cast.coordinator.must(leaveGroup, { id: member, version: await version(cast, member) })
    // The complaint: removing a link must never take anything from the order.
    const told = (one: typeof before) => ({ ...one, version: 0, timeline: [], gauge: null })
    expect(told(await sheet(member))).toEqual(told(before))
    expect((await sheet(lead)).timeline.map((entry) => entry.kind)).toEqual(expect.arrayContaining(['order.lead', 'order.unlead']))
    const { version: now } = await cast.coordinator.must(discardOrder, { id: member, version: left.version })
    expect((await sheet(member)).discarded).toBe(true)
    await cast.coordinator.must(restoreOrder, { id: member, version: now })
    expect(told(await sheet(member))).toEqual(told(before))
    expect((await cast.clerk.call(discardOrder, { id: member, version: await version(cast, member) })).status).toBe(403)
    await approved(cast, member)
    const kept = await cast.coordinator.call(discardOrder, { id: member, version: await version(cast, member) })
    expect(kept.status).toBe(422)
  })

  test('no group in a group, none of itself, none under what is over', async () => {
    const [lead, member, third] = [await draft(), await draft(), await draft()]
    const join = async (id: number, leadId: number) => cast.coordinator.call(joinGroup, { id, version: await version(cast, id), leadId })
    expect((await join(member, member)).problem.reasons![0]!.code).toBe('own_lead')
    expect((await join(member, lead)).status).toBe(200)
    expect((await join(third, member)).problem.reasons![0]!.code).toBe('lead_is_member')
    expect((await join(lead, third)).problem.reasons![0]!.code).toBe('leads_others')
    await cast.coordinator.must(cancelOrder, { id: third, version: await version(cast, third), reason: 'Not needed' })
    expect((await join(await draft(), third)).problem.reasons![0]!.code).toBe('lead_over')
    // Two who put each other’s orders under their own: one goes in, none waits for ever.
    const [a, b] = [await draft(), await draft()]
    const both = await Promise.all([join(a, b), join(b, a)])
    expect(both.filter((one) => one.status === 200)).toHaveLength(1)
  })

  test('a lead is finished only after it was said what becomes of open members; they go on, whole', async () => {
    const id = await accepted(cast, (await report(cast)).id)
    await approved(cast, id)
    const visitId = await dispatched(cast, id)
    const member = await draft()
    await cast.coordinator.must(joinGroup, { id: member, version: await version(cast, member), leadId: id })
    await cast.technician.must(switchStint, { visitId, kind: 'work' })
    const { number } = await sheet(member)
    expect((await cast.technician.must(readJob, { visitId })).openMembers).toEqual([number])
    const leaving = { visitId, result: 'done' as const, symptom: 'Noisy', cause: 'Wear', fix: 'Replaced' }
    const refused = await cast.technician.call(finishJob, leaving)
    expect(refused.problem.reasons).toEqual([
      { code: 'members_open', sentence: `It leads ${number}, which is not over: say first what becomes of it.`, field: 'members' },
    ])
    expect((await sheet(id)).state).toBe('on_job')
    await cast.technician.must(finishJob, { ...leaving, releaseMembers: true })
    expect((await sheet(id)).state).toBe('done')
    expect(await sheet(member)).toMatchObject({ state: 'draft', lead: null, discarded: false })
  })

  test('an order to be recalled for an emergency asks for one of the site’s reasons', async () => {
    await set('reasons', [{ move: 'recall', when: { states: ['dispatched'] }, answers: ['Wrong trade'] }])
    const id = await accepted(cast, (await report(cast)).id)
    await approved(cast, id)
    await dispatched(cast, id)
    const recall = async (reason?: string) => cast.coordinator.call(recallOrder, { id, version: await version(cast, id), reason })
    expect((await recall()).problem.reasons![0]!.code).toBe('reason_missing')
    expect((await recall('Wrong trade')).body.state).toBe('ready')
    await set('reasons', [])
  })
})
