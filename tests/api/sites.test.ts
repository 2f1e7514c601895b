import { dispatchOrder } from '#contract/dispatch'
import { addJobPhoto, addNote, readJob } from '#contract/field'
import { handOver, readUnable } from '#contract/approvals'
import {
  approveOrder,
  cancelOrder,
  editHold,
  editOrder,
  editTarget,
  readPromises,
  readAttachment,
  readOrder,
  recallOrder,
  reopenOrder,
  submitOrder,
} from '#contract/orders'
import { editAccount, readAccounts, saveAway } from '#contract/people'
import { readContext } from '#contract/places'
import { enterCall, triageRequest } from '#contract/requests'
import {
  editNumbering,
  readIntakeSetup,
  readNumbering,
  readRuleBook,
  saveCalendar,
  saveConsent,
  savePromiseException,
  saveRules,
  saveWording,
} from '#contract/setup'
import { addVendorNote, readPass } from '#contract/vendors'
import { approved, castAt, Client, complete, dispatched, House, orderAt, orderInFull, report, version, worked } from '../kit'
import type { Cast, Running } from '../kit'

/** Two sites in one installation: who acts at one sees and changes nothing of the other. */
let house: House
let server: Running
let cast: Cast
let admin: Client
let SKE = 0
let MUS = 0

beforeAll(async () => {
  house = await House.open('sites', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
  admin = await new Client(server.url).signIn('wendeline.stroud')
  const sites = await house.rows<{ id: number; code: string }>('SELECT id, code FROM site')
  SKE = sites.find((site) => site.code === 'SKE')!.id
  MUS = sites.find((site) => site.code === 'MUS')!.id
})
afterAll(() => house?.close())

const one = async (sql: string, values: unknown[] = []) => (await house.rows<{ id: number }>(sql, values))[0]!.id
const account = (person: string) => one('SELECT id FROM account WHERE email = ?', [`${person}@skerry.example`])
/** Somebody with exactly these roles from now on. */
async function holding(person: string, grants: [string, number | null][]): Promise<Client> {
  const id = await account(person)
  await house.rows('DELETE FROM account_role WHERE account_id = ?', [id])
  for (const [role, siteId] of grants) await house.rows('INSERT INTO account_role (account_id, role, site_id) VALUES (?, ?, ?)', [id, role, siteId])
  return new Client(server.url).signIn(person)
}
const fieldOf = (reply: { status: number; problem: { reasons?: { field?: string }[] } }) => [reply.status, reply.problem.reasons?.[0]?.field]

describe('ids that come in', () => {
  test('a place, asset, person, team or anything else that is unknown, foreign or given up is refused at its field, and changes nothing', async () => {
    const { id } = await orderAt(cast, 'draft')
    const foreignPlace = await one('SELECT id FROM place WHERE site_id = ? LIMIT 1', [MUS])
    const retired = await one('SELECT id FROM asset WHERE site_id = ? LIMIT 1', [SKE])
    await house.rows('UPDATE asset SET retired_at = NOW() WHERE id = ?', [retired])
    await house.rows("UPDATE category SET retired_at = NOW() WHERE code = 'lift'")
    const retiredCategory = await one("SELECT id FROM category WHERE code = 'lift'")
    await house.rows('INSERT INTO team (site_id, name) VALUES (?, ?)', [MUS, 'Hatchery'])
    const foreignTeam = await one('SELECT id FROM team WHERE site_id = ?', [MUS])
    const tries: [Record<string, unknown>, string][] = [
      [{ placeId: foreignPlace }, 'placeId'],
      [{ placeId: 999_999 }, 'placeId'],
      [{ assetId: retired }, 'assetId'],
      [{ assetId: 999_999 }, 'assetId'],
      [{ supervisorId: 999_999 }, 'supervisorId'],
      // Somebody who approves nothing supervises nothing.
      [{ supervisorId: await account('maren.quill') }, 'supervisorId'],
      [{ leadId: 999_999 }, 'leadId'],
      [{ categoryId: retiredCategory }, 'categoryId'],
      [{ categoryId: 999_999 }, 'categoryId'],
      [{ tradeId: 999_999 }, 'tradeId'],
      [{ teamId: foreignTeam }, 'teamId'],
      [{ vendorId: 999_999 }, 'vendorId'],
      [{ shares: [{ payerId: 999_999, shareBp: 10_000 }] }, 'shares'],
    ]
    const before = await cast.coordinator.must(readOrder, { id })
    for (const [sent, field] of tries) expect(fieldOf(await cast.coordinator.call(editOrder, { id, version: before.version, ...sent }))).toEqual([422, field])
    expect((await cast.coordinator.must(readOrder, { id })).version).toBe(before.version)
    await house.rows('UPDATE category SET retired_at = NULL')
    await house.rows('UPDATE asset SET retired_at = NULL')
  })

  test('the same of requests, calls, dispatch and Setup', async () => {
    const { id } = await report(cast)
    for (const field of ['placeId', 'assetId', 'categoryId', 'payerId'])
      expect(fieldOf(await cast.coordinator.call(triageRequest, { id, version: 1, [field]: 999_999 }))).toEqual([422, field])
    const call = { siteId: SKE, placeId: 20, summary: 'Called in' }
    for (const field of ['siteId', 'placeId', 'categoryId', 'payerId', 'personId'])
      expect(fieldOf(await cast.coordinator.call(enterCall, { ...call, [field]: 999_999 }))).toEqual([422, field])
    // Somebody of two sites, at either: the call is of the site its place is at, whoever calls.
    const away = await one('SELECT id FROM place WHERE site_id = ? LIMIT 1', [MUS])
    const caller = await one('SELECT id FROM person WHERE site_id = ? LIMIT 1', [SKE])
    const wide = await holding('tobias.achterberg', [['coordinator', null]])
    const taken = await wide.must(enterCall, { placeId: away, personId: caller, summary: 'Seen while visiting', description: '' })
    expect(await one('SELECT site_id AS id FROM request WHERE id = ?', [taken.id])).toBe(MUS)
    const local = await holding('tobias.achterberg', [['coordinator', SKE]])
    expect(fieldOf(await local.call(enterCall, { placeId: away, summary: 'Not theirs', description: '' }))).toEqual([422, 'placeId'])
    const stranger = await one('SELECT id FROM person WHERE site_id = ? ORDER BY id DESC LIMIT 1', [SKE])
    await house.rows('UPDATE person SET site_id = ? WHERE id = ?', [MUS, stranger])
    expect(fieldOf(await local.call(enterCall, { placeId: 20, personId: stranger, summary: 'x', description: '' }))).toEqual([422, 'personId'])
    await holding('tobias.achterberg', [['coordinator', null]])
    const order = await orderAt(cast, 'ready')
    const plan = { id: order.id, version: await version(cast, order.id), start: '2026-11-24T09:00:00Z', end: '2026-11-24T10:00:00Z' }
    expect(fieldOf(await cast.coordinator.call(dispatchOrder, { ...plan, technicianIds: [999_999] }))).toEqual([422, 'technicianIds'])
    expect(fieldOf(await cast.coordinator.call(dispatchOrder, { ...plan, vendorId: 999_999 }))).toEqual([422, 'vendorId'])
    const promise = { siteId: SKE, categoryId: 999_999, priority: 'urgent' as const, clock: 'working' as const, responseMinutes: 5, completionMinutes: 9 }
    expect(fieldOf(await admin.call(savePromiseException, promise))).toEqual([422, 'categoryId'])
    const wording = { siteId: 999_999, occasion: 'received' as const, subject: 'x', text: '{link}' }
    expect(fieldOf(await admin.call(saveWording, wording))).toEqual([422, 'siteId'])
  })

  test('what is known around a place of another site is not told', async () => {
    const place = await one('SELECT id FROM place WHERE site_id = ? LIMIT 1', [SKE])
    const other = await holding('tobias.achterberg', [['coordinator', MUS]])
    expect((await other.call(readContext, { placeId: place })).status).toBe(404)
    expect((await other.call(readContext, { assetId: 1 })).status).toBe(404)
    expect((await cast.coordinator.must(readContext, { placeId: place })).place).not.toBeNull()
    await holding('tobias.achterberg', [['coordinator', null]])
  })
})

describe('an administrator of one site', () => {
  let local: Client
  beforeAll(async () => {
    // Coordinator everywhere: a role reaches as far as it is held, not as far as another one is.
    local = await holding('tobias.achterberg', [
      ['administrator', MUS],
      ['coordinator', null],
    ])
  })
  afterAll(() => holding('tobias.achterberg', [['coordinator', null]]))

  test('sees and changes the rules, promises, numbers and words of that site alone', async () => {
    const accounts = await local.must(readAccounts, {})
    expect([accounts.everywhere, accounts.sites.map((site) => site.code)]).toEqual([false, ['MUS']])
    expect(new Set((await local.must(readPromises, {})).targets.map((target) => target.siteCode))).toEqual(new Set(['MUS']))
    expect(new Set((await local.must(readNumbering, {})).numberings.map((row) => row.siteCode))).toEqual(new Set(['MUS']))
    expect((await local.must(readIntakeSetup, {})).sites.map((site) => site.code)).toEqual(['MUS'])
    const target = await house.rows<{ id: number }>("SELECT id FROM target_rule WHERE site_id = ? AND priority = 'urgent'", [SKE])
    const theirs = [
      local.call(readRuleBook, { siteId: SKE }),
      local.call(saveRules, { siteId: SKE, version: 0, section: 'reasons', content: [] }),
      local.call(saveCalendar, { siteId: SKE, version: 0, week: Array.from({ length: 7 }, () => []), holidays: [] }),
      local.call(editNumbering, { siteId: SKE, series: 'order', next: 90_000 }),
      local.call(editTarget, { id: target[0]!.id, clock: 'working', responseMinutes: 1, completionMinutes: 1 }),
    ]
    expect((await Promise.all(theirs)).map((reply) => reply.status)).toEqual([404, 404, 404, 404, 404])
    // What holds everywhere is for those who administer everywhere.
    const everywhere = await local.call(editHold, { reason: 'part', stopsClock: true })
    expect([everywhere.status, everywhere.problem.detail]).toEqual([403, expect.stringContaining('every site')])
    expect((await local.call(saveConsent, { siteId: MUS, payerId: 1, accountId: null, aboveMinor: null })).status).toBe(403)
    expect((await local.call(saveRules, { siteId: MUS, version: 0, section: 'reasons', content: [] })).status).toBe(200)
  })

  test('gives roles there and nowhere else, and leaves those of other sites as they are', async () => {
    const bram = await account('bram.oyelaran')
    await house.rows('UPDATE account_role SET site_id = ? WHERE account_id = ?', [SKE, bram])
    expect((await local.must(readAccounts, {})).accounts.map((one) => one.id)).not.toContain(bram)
    expect((await local.call(editAccount, { id: bram, version: 1, roles: [], approvalLimitMinor: null, disabled: true })).status).toBe(404)

    const id = await account('petra.lindqvist')
    await house.rows('INSERT INTO account_role (account_id, role, site_id) VALUES (?, ?, ?)', [id, 'manager', MUS])
    const row = (await local.must(readAccounts, {})).accounts.find((one) => one.id === id)!
    expect(row.whole).toBe(false)
    const save = (roles: typeof row.roles, more = {}) =>
      local.call(editAccount, { id, version: row.version, roles, approvalLimitMinor: row.approvalLimitMinor, disabled: false, ...more })
    expect((await save([...row.roles, { role: 'administrator', siteId: null }])).problem.reasons![0]!.code).toBe('out_of_reach')
    expect((await save([...row.roles, { role: 'approver', siteId: SKE }])).problem.reasons![0]!.code).toBe('out_of_reach')
    expect((await save(row.roles.filter((grant) => grant.siteId === MUS))).problem.reasons![0]!.code).toBe('out_of_reach')
    expect((await save(row.roles, { approvalLimitMinor: 9_900_000 })).problem.reasons![0]!.code).toBe('works_elsewhere')
    expect((await save(row.roles, { disabled: true })).problem.reasons![0]!.code).toBe('works_elsewhere')
    const given = await save([...row.roles, { role: 'coordinator', siteId: MUS }])
    expect(given.status).toBe(200)
    const rows = await house.rows<{ role: string; site_id: number | null }>('SELECT role, site_id FROM account_role WHERE account_id = ? ORDER BY id', [id])
    expect(rows).toEqual([
      { role: 'billing_clerk', site_id: null },
      { role: 'manager', site_id: MUS },
      { role: 'coordinator', site_id: MUS },
    ])
    await house.rows('UPDATE account_role SET site_id = NULL WHERE account_id = ?', [bram])
    await holding('petra.lindqvist', [['billing_clerk', null]])
  })

  test('saving roles keeps the site of each', async () => {
    const id = await account('yusuf.adeyemi-rourke')
    await holding('yusuf.adeyemi-rourke', [['manager', MUS]])
    const row = (await admin.must(readAccounts, {})).accounts.find((one) => one.id === id)!
    const roles = [...row.roles, { role: 'coordinator' as const, siteId: MUS }]
    await admin.must(editAccount, { id, version: row.version, roles, approvalLimitMinor: null, disabled: false })
    expect(await house.rows('SELECT DISTINCT site_id FROM account_role WHERE account_id = ?', [id])).toEqual([{ site_id: MUS }])
    await holding('yusuf.adeyemi-rourke', [['manager', null]])
  })
})

describe('who may decide', () => {
  const away = { fromAt: '2026-11-23T00:00:00Z', untilAt: '2026-12-23T00:00:00Z' }
  const dear = async () => {
    const { id } = await orderAt(cast, 'draft')
    await cast.coordinator.must(editOrder, { id, version: await version(cast, id), ...complete, estimateMinor: 900_000 })
    await cast.coordinator.must(submitOrder, { id, version: await version(cast, id) })
    return id
  }
  const approves = async (id: number) => cast.approver.call(approveOrder, { id, version: await version(cast, id) })

  test('a deputy acts only while the person away could', async () => {
    const osric = await account('osric.vane')
    await house.rows('DELETE FROM deputy')
    await admin.must(saveAway, { accountId: osric, deputyId: await account('ines.ferrall'), ...away })
    const [closed, noApprover, open] = [await dear(), await dear(), await dear()]
    await house.rows('UPDATE account SET disabled_at = NOW() WHERE id = ?', [osric])
    expect((await approves(closed)).problem.reasons![0]!.code).toBe('over_limit')
    await house.rows('UPDATE account SET disabled_at = NULL WHERE id = ?', [osric])
    await house.rows("UPDATE account_role SET role = 'manager' WHERE account_id = ?", [osric])
    expect((await approves(noApprover)).problem.reasons![0]!.code).toBe('over_limit')
    await house.rows("UPDATE account_role SET role = 'approver', site_id = ? WHERE account_id = ?", [MUS, osric])
    expect((await approves(noApprover)).problem.reasons![0]!.code).toBe('over_limit')
    await house.rows('UPDATE account_role SET site_id = NULL WHERE account_id = ?', [osric])
    expect((await approves(open)).status).toBe(200)
    const [kept] = await house.rows('SELECT acting_for_id FROM approval WHERE order_id = ?', [open])
    expect(kept).toEqual({ acting_for_id: osric })
    await house.rows('DELETE FROM deputy')
  })

  test('nobody approves what they submitted, unless their site’s rule and their own limit say so', async () => {
    const both = await holding('ines.ferrall', [
      ['approver', null],
      ['coordinator', null],
    ])
    const submitted = async (estimateMinor: number) => {
      const { id } = await orderAt(cast, 'draft')
      await both.must(editOrder, { id, version: await version(cast, id), ...complete, estimateMinor })
      await both.must(submitOrder, { id, version: await version(cast, id) })
      return id
    }
    const small = await submitted(20_000)
    const approve = async (id: number) => both.call(approveOrder, { id, version: await version(cast, id) })
    expect((await approve(small)).problem.reasons![0]!.code).toBe('own_submission')
    const rules = async () => (await admin.must(readRuleBook, { siteId: SKE })).versions.ownSubmissions
    await admin.must(saveRules, { siteId: SKE, version: await rules(), section: 'ownSubmissions', content: 'own_limit' })
    // What somebody away lends does not count for one’s own.
    await house.rows('INSERT INTO deputy (for_account_id, deputy_account_id, from_at, until_at) VALUES (?, ?, ?, ?)', [
      await account('osric.vane'),
      await account('ines.ferrall'),
      '2026-11-01',
      '2027-01-01',
    ])
    const large = await submitted(900_000)
    expect((await approve(large)).problem.reasons![0]!.code).toBe('own_submission')
    expect((await approve(small)).status).toBe(200)
    await house.rows('DELETE FROM deputy')
    await admin.must(saveRules, { siteId: SKE, version: await rules(), section: 'ownSubmissions', content: 'never' })
    await holding('ines.ferrall', [['approver', null]])
  })

  test('rules ask only who can decide; who loses the right is shown with what waits, told of, and handed over', async () => {
    const osric = await account('osric.vane')
    const rule = (accountId: number) => ({ when: {}, asks: [{ accountId }], inOrder: false })
    const book = async () => (await admin.must(readRuleBook, { siteId: SKE })).versions.approvals
    const save = async (accountId: number) => admin.call(saveRules, { siteId: SKE, version: await book(), section: 'approvals', content: [rule(accountId)] })
    expect(fieldOf(await save(await account('maren.quill')))).toEqual([422, 'content'])
    expect(fieldOf(await admin.call(saveConsent, { siteId: SKE, payerId: 1, accountId: await account('maren.quill'), aboveMinor: 5 }))).toEqual([
      422,
      'accountId',
    ])
    expect((await save(osric)).status).toBe(200)
    const { id } = await orderAt(cast, 'to_approve')

    const row = (await admin.must(readAccounts, {})).accounts.find((one) => one.id === osric)!
    await admin.must(editAccount, {
      id: osric,
      version: row.version,
      roles: row.roles,
      approvalLimitMinor: row.approvalLimitMinor,
      disabled: true,
    })
    const { unable } = await admin.must(readUnable, {})
    const [waiting] = unable.filter((each) => each.accountId === osric && each.siteId === SKE)
    expect(waiting).toMatchObject({ rules: 1, orders: [{ id }] })
    expect(waiting!.able.map((one) => one.id)).toContain(await account('ines.ferrall'))
    expect(waiting!.able.map((one) => one.id)).not.toContain(osric)
    expect((await orderInFull(cast.coordinator, id)).agreements.map((ask) => ask.why).join()).toContain('They approve nothing here any more')
    const [told] = await house.rows<{ sentence: string }>("SELECT sentence FROM notice WHERE sentence LIKE '%cannot decide any more%' ORDER BY id DESC LIMIT 1")
    expect(told!.sentence).toContain('Osric Vane')
    // Nothing new is sent to where nobody decides.
    const { id: next } = await orderAt(cast, 'draft')
    await cast.coordinator.must(editOrder, { id: next, version: await version(cast, next), ...complete })
    expect((await cast.coordinator.call(submitOrder, { id: next, version: await version(cast, next) })).problem.reasons![0]!.code).toBe('asks_in_vain')

    const ines = await account('ines.ferrall')
    expect(fieldOf(await admin.call(handOver, { siteId: SKE, fromId: osric, toId: await account('maren.quill') }))).toEqual([422, 'toId'])
    const after = await admin.must(handOver, { siteId: SKE, fromId: osric, toId: ines })
    expect(after.unable).toEqual([])
    expect((await approves(id)).status).toBe(200)
    const again = (await admin.must(readAccounts, {})).accounts.find((one) => one.id === osric)!
    await admin.must(editAccount, { id: osric, version: again.version, roles: again.roles, approvalLimitMinor: again.approvalLimitMinor, disabled: false })
    await admin.must(saveRules, { siteId: SKE, version: await book(), section: 'approvals', content: [] })
  })
})

describe('in the field', () => {
  const picture = async () => {
    const sharp = (await import('sharp')).default
    const bytes = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#1F7A7A' } })
      .png()
      .toBuffer()
    return new Blob([new Uint8Array(bytes)])
  }

  test('a technician sent again opens the photo of the first visit, also at a site where they have no role', async () => {
    const { id, visitId } = await orderAt(cast, 'dispatched')
    await cast.coordinator.must(recallOrder, { id, version: await version(cast, id) })
    const second = await dispatched(cast, id)
    const sheet = await cast.technician.must(addJobPhoto, { visitId: second }, { file: await picture() })
    const photo = { id: sheet.photos.at(-1)!.id }
    expect((await cast.technician.call(readAttachment, photo)).status).toBe(200)
    expect((await cast.technician.call(readJob, { visitId })).status).toBe(404)
    const bram = await account('bram.oyelaran')
    await house.rows('UPDATE account_role SET site_id = ? WHERE account_id = ?', [MUS, bram])
    expect((await cast.technician.call(readAttachment, photo)).status).toBe(200)
    await house.rows('UPDATE account_role SET site_id = NULL WHERE account_id = ?', [bram])
    // Taken back for good, nothing of it can be opened any more.
    await cast.coordinator.must(recallOrder, { id, version: await version(cast, id) })
    expect((await cast.technician.call(readAttachment, photo)).status).toBe(404)
  })

  test('nothing is added to an order that is over, and an old pass tells nothing of a reopened one', async () => {
    const { id, visitId } = await orderAt(cast, 'done')
    await cast.technician.must(addNote, { visitId, text: 'The valve behind it is worn too.' })
    await house.rows("UPDATE work_order SET state = 'closed' WHERE id = ?", [id])
    expect((await cast.technician.call(addNote, { visitId, text: 'Too late' })).problem.reasons![0]!.code).toBe('order_over')

    const { id: other } = await orderAt(cast, 'draft')
    await approved(cast, other)
    const vendorVisit = await dispatched(cast, other, { vendorId: 1 })
    const mail = await house.mail((await house.rows<{ email: string }>('SELECT email FROM vendor WHERE id = 1'))[0]!.email, (one) => one.text.includes('/p/'))
    const token = /\/p\/([A-Za-z0-9_-]{43})/.exec(mail.text)![1]!
    await house.rows("UPDATE visit SET state = 'ended', started_at = '2026-11-23 10:40', ended_at = '2026-11-23 10:50', result = 'done' WHERE id = ?", [
      vendorVisit,
    ])
    await house.rows("UPDATE work_order SET state = 'done', finished_at = NOW() WHERE id = ?", [other])
    await cast.anybody.must(addVendorNote, { token, text: 'Bring a ladder next time.' })
    await house.rows("UPDATE work_order SET state = 'closed' WHERE id = ?", [other])
    expect((await cast.anybody.call(addVendorNote, { token, text: 'After the charge' })).problem.reasons![0]!.code).toBe('order_over')
    await house.rows("UPDATE work_order SET state = 'done' WHERE id = ?", [other])
    await house.rows("UPDATE visit SET ended_at = '2026-11-23 10:20' WHERE id = ?", [vendorVisit])
    await cast.coordinator.must(reopenOrder, { id: other, version: await version(cast, other), reason: 'It drips again' })
    await cast.coordinator.must(editOrder, { id: other, version: await version(cast, other), description: 'Now behind the director’s safe.' })
    expect((await cast.anybody.call(readPass, { token })).status).toBe(404)
    await worked(cast, await dispatched(cast, other))
    expect((await cast.anybody.call(readPass, { token })).status).toBe(404)
    expect((await cast.coordinator.call(cancelOrder, { id: other, version: 1, reason: 'x' })).status).toBe(409)
  })
})
