import { parse } from 'csv-parse/sync'
import { read, utils } from '@e965/xlsx'
import {
  changeView,
  chooseUsualView,
  dropView,
  exportList,
  listGroups,
  listOrderLines,
  listRecordLines,
  listRequestLines,
  listViews,
  peekRow,
  readListFacts,
  saveView,
} from '#contract/lists'
import type { OrderLine } from '#contract/orders'
import type { RequestLine } from '#contract/requests'
import { editOrder } from '#contract/orders'
import { editAccount, readAccounts } from '#contract/people'
import { isRegister, LIST_FIELDS, LIST_KINDS, SHIPPED_VIEWS } from '#core/lists'
import type { FieldShape, ListKind } from '#core/lists'
import { accepted, castAt, Client, House, orderAt, report, version } from '../kit'
import type { Cast, Running } from '../kit'

/** Lists by any field, held against the rows themselves; views; files that a spreadsheet opens. */
let house: House
let server: Running
let cast: Cast
let tobias: Client

beforeAll(async () => {
  house = await House.open('lists')
  server = await house.start()
  cast = await castAt(server.url)
  tobias = await new Client(server.url).signIn('tobias.achterberg')
})
afterAll(() => house?.close())

async function everyOrder(ask: string, limit = 150): Promise<OrderLine[]> {
  const rows: OrderLine[] = []
  for (let after: string | undefined, more = true; more;) {
    const page = await cast.coordinator.must(listOrderLines, { ask, limit, ...(after ? { after } : {}) })
    rows.push(...page.rows)
    after = page.next ?? undefined
    more = page.next !== null
  }
  return rows
}
async function everyRequest(ask: string, limit = 150): Promise<RequestLine[]> {
  const rows: RequestLine[] = []
  for (let after: string | undefined, more = true; more;) {
    const page = await cast.coordinator.must(listRequestLines, { ask, limit, ...(after ? { after } : {}) })
    rows.push(...page.rows)
    after = page.next ?? undefined
    more = page.next !== null
  }
  return rows
}
const ids = (rows: { id: number }[]) => rows.map((row) => row.id).sort((a, b) => a - b)
const sqlIds = async (table: 'work_order' | 'request', where: string) => ids(await house.rows<{ id: number }>(`SELECT o.id FROM ${table} o WHERE ${where}`))
const LIVE = 'o.archived = 0 AND o.discarded_at IS NULL'
const NOW = "'2026-11-23 10:30:30'"

const listed = (kind: ListKind, input: { ask: string; limit: number }) =>
  isRegister(kind)
    ? cast.coordinator.call(listRecordLines, { register: kind, ...input })
    : cast.coordinator.call(kind === 'orders' ? listOrderLines : listRequestLines, input)

describe('filters of orders hold for exactly the rows they are true of', () => {
  test.each([
    ['state=ready,dispatched', "o.state IN ('ready', 'dispatched')"],
    ['state=!closed,cancelled', "o.state NOT IN ('closed', 'cancelled')"],
    ['priority=urgent&kind=repair', "o.priority = 'urgent' AND o.kind = 'repair'"],
    ['kind=!repair', "o.kind <> 'repair'"],
    ['place=2', "o.place_id IN (SELECT p.id FROM place p JOIN place a ON p.path LIKE CONCAT(a.path, '%') WHERE a.id = 2)"],
    ['place=!2', "(o.place_id IS NULL OR o.place_id NOT IN (SELECT p.id FROM place p JOIN place a ON p.path LIKE CONCAT(a.path, '%') WHERE a.id = 2))"],
    ['asset=none&state=closed', "o.asset_id IS NULL AND o.state = 'closed'"],
    ['asset=any', 'o.asset_id IS NOT NULL'],
    ['category=3,4', 'o.category_id IN (3, 4)'],
    ['trade=1&team=1', 'o.trade_id = 1 AND o.team_id = 1'],
    ['team=none', 'o.team_id IS NULL'],
    ['supervisor=3&state=to_approve', "o.supervisor_id = 3 AND o.state = 'to_approve'"],
    ['technician=1', "EXISTS (SELECT 1 FROM visit v WHERE v.order_id = o.id AND v.state <> 'recalled' AND v.technician_id = 1)"],
    [
      'vendor=any&technician=none',
      'EXISTS (SELECT 1 FROM visit v WHERE v.order_id = o.id AND v.vendor_id IS NOT NULL) AND NOT EXISTS (SELECT 1 FROM visit v WHERE v.order_id = o.id AND v.technician_id IS NOT NULL)',
    ],
    ['who=yes', "EXISTS (SELECT 1 FROM visit v WHERE v.order_id = o.id AND v.state IN ('planned', 'on_site'))"],
    ['payer=2', 'EXISTS (SELECT 1 FROM order_share s WHERE s.order_id = o.id AND s.payer_id = 2)'],
    ['payer=!2', 'NOT EXISTS (SELECT 1 FROM order_share s WHERE s.order_id = o.id AND s.payer_id = 2)'],
    ['estimate=10000..20000', 'o.estimate_minor BETWEEN 10000 AND 20000'],
    ['estimate=none', 'o.estimate_minor IS NULL'],
    ['finished=2026-10-01..2026-10-31', "o.finished_at >= '2026-09-30 23:00' AND o.finished_at < '2026-11-01 00:00'"],
    ['created=..2025-12-31', "o.created_at < '2026-01-01'"],
    ['closed=none&state=checked', "o.closed_at IS NULL AND o.state = 'checked'"],
    ['due=-1d..1d&state=ready', "o.completion_due_at >= '2026-11-22' AND o.completion_due_at < '2026-11-25' AND o.state = 'ready'"],
    ['start=none&state=closed', "o.state = 'closed' AND NOT EXISTS (SELECT 1 FROM visit v WHERE v.order_id = o.id AND v.state <> 'recalled')"],
    ['hold=part,access', "o.hold_reason IN ('part', 'access')"],
    ['consequence=safety&urgency=now', "o.consequence = 'safety' AND o.urgency = 'now'"],
    ['contact=Ingleby', "(o.contact_name LIKE '%Ingleby%' OR o.contact_phone LIKE '%Ingleby%')"],
    ['summary=!tap&state=draft', "o.summary NOT LIKE '%tap%' AND o.state = 'draft'"],
    [
      'standing=past&state=ready,dispatched,on_job,on_hold',
      `o.state IN ('ready', 'dispatched', 'on_job', 'on_hold') AND COALESCE(o.finished_at, o.clock_stopped_at, ${NOW}) > o.completion_due_at`,
    ],
    ['standing=on_time&state=draft,ready', `o.state IN ('draft', 'ready') AND COALESCE(o.finished_at, o.clock_stopped_at, ${NOW}) < o.close_at`],
    ['grouped=no&state=draft', "o.lead_order_id IS NULL AND o.state = 'draft'"],
    ['number=W-3100', "o.number LIKE '%W-3100%'"],
  ])('%s', async (ask, where) => {
    const found = await everyOrder(ask)
    expect(ids(found)).toEqual(await sqlIds('work_order', `${LIVE} AND ${where}`))
    const facts = await cast.coordinator.must(readListFacts, { kind: 'orders', ask })
    expect([facts.count, facts.more]).toEqual([found.length, false])
  })

  const VALUES: Partial<Record<FieldShape, string>> = {
    named: '1',
    money: '0..5',
    count: '1..',
    percent: '..100',
    day: 'today',
    date: '-30d..',
    text: 'x',
    words: 'water',
    flag: 'yes',
  }
  test('every field there is can be asked, sorted, grouped and shown without an error', async () => {
    for (const kind of LIST_KINDS) {
      const fields = LIST_FIELDS[kind].filter((field) => !field.may)
      expect([kind, (await listed(kind, { ask: `columns=${fields.flatMap((field) => (field.shows ? field.name : [])).join()}`, limit: 5 })).status]).toEqual([
        kind,
        200,
      ])
      for (const field of fields) {
        const value = VALUES[field.shape] ?? Object.keys(field.choices!)[0]
        for (const ask of [
          ...(field.unasked ? [] : [`${field.name}=${value}`]),
          ...(field.sorts ? [`sort=${field.name}`, `sort=-${field.name}`] : []),
          ...(field.empties ? [`${field.name}=none`] : []),
        ])
          expect([kind, ask, (await listed(kind, { ask, limit: 5 })).status]).toEqual([kind, ask, 200])
        if (field.groups) expect((await cast.coordinator.must(listGroups, { kind, ask: `group=${field.name}` })).rows.length).toBeGreaterThan(0)
      }
    }
  })

  test('words are found as they begin, all of them, in line and description', async () => {
    const found = await everyOrder('words=drain sand')
    expect(found.length).toBeGreaterThan(0)
    const rows = await house.rows<{ text: string }>(`SELECT CONCAT(summary, ' ', description) AS text FROM work_order WHERE id IN (?)`, [ids(found)])
    for (const { text } of rows) expect(text.toLowerCase()).toMatch(/\bdrain[\s\S]*\bsand|\bsand[\s\S]*\bdrain/)
    expect(ids(await everyOrder('words=W-31000'))).toEqual(await sqlIds('work_order', "o.number = 'W-31000'"))
    expect(await everyOrder('words=%25')).toEqual([])
  })

  test('what was archived or discarded is there when it is asked for, and only then', async () => {
    const [order] = await house.rows<{ id: number }>("SELECT id FROM work_order WHERE state = 'closed' LIMIT 1")
    await house.rows('UPDATE work_order SET archived = 1 WHERE id = ?', [order!.id])
    expect(ids(await everyOrder('state=closed'))).not.toContain(order!.id)
    expect(ids(await everyOrder('archived=yes'))).toContain(order!.id)
    await house.rows('UPDATE work_order SET archived = 0 WHERE id = ?', [order!.id])
  })

  test('an address that says nothing is refused by name, and nothing is guessed', async () => {
    const reply = await cast.coordinator.call(listOrderLines, { ask: 'state=flying&colour=red&sort=due' })
    expect(reply.status).toBe(422)
    expect(reply.problem.reasons!.map((reason) => reason.field)).toEqual(['state', 'colour'])
    expect((await cast.coordinator.call(listOrderLines, { ask: 'state=ready', after: 'x'.repeat(20) })).status).toBe(400)
  })
})

describe('filters of requests', () => {
  test.each([
    ['state=new,asked', "o.state IN ('new', 'asked')"],
    ['channel=email&state=accepted', "o.channel = 'email' AND o.state = 'accepted'"],
    ['state=joined&decided=2026-10-01..', "o.state = 'joined' AND o.decided_at >= '2026-09-30 23:00'"],
    ['reporter=Ingleby', "(o.reporter_name LIKE '%Ingleby%' OR o.reporter_email LIKE '%Ingleby%')"],
    ['payer=2&priority=none', 'o.payer_id = 2 AND o.priority IS NULL'],
    ['takenup=1&state=declined', "o.taken_up_by = 1 AND o.state = 'declined'"],
    ['wish=any&received=-10d..', "o.wish IS NOT NULL AND o.received_at >= '2026-11-13'"],
    ['repeats=no&state=new', "o.repeats_id IS NULL AND o.state = 'new'"],
    ['place=2&state=new', "o.state = 'new' AND o.place_id IN (SELECT p.id FROM place p JOIN place a ON p.path LIKE CONCAT(a.path, '%') WHERE a.id = 2)"],
  ])('%s', async (ask, where) => {
    expect(ids(await everyRequest(ask))).toEqual(await sqlIds('request', where))
  })
})

describe('order and pages', () => {
  test.each([
    ['sort=due', 'o.completion_due_at, o.id'],
    ['sort=-due', 'o.completion_due_at DESC, o.id DESC'],
    ['sort=priority', 'o.priority_rank, o.completion_due_at, o.id'],
    ['sort=-finished', 'o.finished_at IS NULL, o.finished_at DESC, o.id DESC'],
    ['sort=finished', 'o.finished_at IS NULL, o.finished_at, o.id'],
    ['sort=-estimate', 'o.estimate_minor IS NULL, o.estimate_minor DESC, o.id DESC'],
    ['sort=closed', 'o.closed_at IS NULL, o.closed_at, o.id'],
    ['sort=created', 'o.created_at, o.id'],
    ['sort=-number', 'o.id DESC'],
  ])('%s: small pages give every row once, in the order of the whole; what is empty comes last', async (ask, order) => {
    const expected = await house.rows<{ id: number }>(`SELECT o.id FROM work_order o WHERE ${LIVE} ORDER BY ${order}`)
    const found = await everyOrder(ask, 173)
    expect(found.map((row) => row.id)).toEqual(expected.map((row) => row.id))
  })

  test('a request list too', async () => {
    const expected = await house.rows<{ id: number }>('SELECT id FROM request ORDER BY decided_at IS NULL, decided_at DESC, id DESC')
    expect((await everyRequest('sort=-decided', 190)).map((row) => row.id)).toEqual(expected.map((row) => row.id))
  })

  test('a row says what its columns show', async () => {
    const { id } = await orderAt(cast, 'dispatched')
    const row = (await everyOrder('state=dispatched')).find((one) => one.id === id)!
    expect(row).toMatchObject({
      state: 'dispatched',
      who: 'Bram Oyelaran',
      lead: 'Maren Quill',
      supervisor: 'Ines Ferrall',
      trade: 'Electrical',
      estimate: 20_000,
      currency: 'EUR',
      contact: 'Aoife Ashdown',
      start: '2026-11-23T11:30:00.000Z',
    })
    expect(row.payer).toMatch(/^\d{4}$/)
  })

  test('every shipped view opens', async () => {
    for (const view of SHIPPED_VIEWS) {
      const reply = await listed(view.kind, { ask: view.address, limit: 10 })
      expect([view.key, reply.status]).toEqual([view.key, 200])
    }
    const late = await everyOrder(SHIPPED_VIEWS.find((view) => view.key === 'late')!.address)
    expect(late.length).toBeGreaterThan(0)
    const mine = await everyOrder(SHIPPED_VIEWS.find((view) => view.key === 'mine')!.address)
    expect(new Set(mine.map((row) => row.lead))).toEqual(new Set(['Maren Quill']))
  })
})

describe('groups', () => {
  test('count and cost what their lists hold, and say how many are past their target', async () => {
    const ask = 'state=draft,to_approve,ready,dispatched,on_job,on_hold'
    for (const group of ['trade', 'place', 'state', 'lead', 'hold']) {
      const { rows } = await cast.coordinator.must(listGroups, { kind: 'orders', ask: `${ask}&group=${group}` })
      expect(rows.reduce((sum, row) => sum + row.count, 0)).toBe((await everyOrder(ask)).length)
      const first = rows.find((row) => row.value !== 'none')!
      const lines = await everyOrder(group === 'state' ? `state=${first.value}` : `${ask}&${group}=${first.value}`)
      expect([group, lines.length, lines.reduce((sum, line) => sum + (line.estimate ?? 0), 0)]).toEqual([group, first.count, first.estimateMinor ?? 0])
      const past = await everyOrder(`${group === 'state' ? `state=${first.value}` : `${ask}&${group}=${first.value}`}&standing=past`)
      expect(past.length).toBe(first.past)
      expect(first.label).not.toBe(first.value)
    }
  })

  test('without a field to go by there are none', async () => {
    expect((await cast.coordinator.call(listGroups, { kind: 'orders', ask: '' })).problem.reasons![0]!.field).toBe('group')
  })
})

test('the essentials of a row without opening it, of what one may see', async () => {
  const { id, requestId } = await orderAt(cast, 'ready')
  const peek = await cast.coordinator.must(peekRow, { kind: 'orders', id })
  expect(peek).toMatchObject({ summary: 'The left light over the sink is out', last: { who: 'Ines Ferrall', kind: 'order.approve' } })
  expect(peek.facts).toEqual(
    expect.arrayContaining([
      { label: 'Estimate', words: '200.00 EUR' },
      { label: 'State', words: 'Ready' },
    ]),
  )
  expect((await cast.coordinator.must(peekRow, { kind: 'requests', id: requestId })).facts).toContainEqual({ label: 'Came by', words: 'Counter' })
  expect((await cast.coordinator.call(peekRow, { kind: 'orders', id: 999_999 })).status).toBe(404)
})

test('what ids in an address are called is told', async () => {
  const { names } = await cast.coordinator.must(readListFacts, {
    kind: 'orders',
    ask: 'place=2&lead=1,2&payer=2&technician=1&vendor=1&team=mine&trade=1&category=1&asset=1',
  })
  expect(names.place!['2']).toBe('TID Tidehall')
  expect(names.lead).toEqual({ '1': 'Maren Quill', '2': 'Tobias Achterberg' })
  expect(names.technician!['1']).toBe('Bram Oyelaran')
  expect(names.team).toEqual({})
})

test('somebody of one site sees, counts and takes away nothing of the other', async () => {
  await house.rows("UPDATE account_role SET site_id = (SELECT id FROM site WHERE code = 'MUS') WHERE account_id = 6")
  const elsewhere = await new Client(server.url).signIn('yusuf.adeyemi-rourke')
  const there = await house.rows<{ id: number }>('SELECT id FROM work_order WHERE site_id = 2 AND archived = 0 AND discarded_at IS NULL')
  expect(ids((await elsewhere.must(listOrderLines, { ask: '', limit: 200 })).rows)).toEqual(ids(there))
  expect((await elsewhere.must(readListFacts, { kind: 'orders', ask: '' })).count).toBe(there.length)
  expect((await elsewhere.must(readListFacts, { kind: 'orders', ask: 'place=2' })).names.place).toEqual({})
  expect((await elsewhere.must(listGroups, { kind: 'orders', ask: 'group=state' })).rows.reduce((sum, row) => sum + row.count, 0)).toBe(there.length)
  expect((await elsewhere.call(exportList, { kind: 'orders', ask: '', format: 'csv' })).text.trim().split('\r\n')).toHaveLength(there.length + 1)
  const [order] = await house.rows<{ id: number }>('SELECT id FROM work_order WHERE site_id = 1 LIMIT 1')
  expect((await elsewhere.call(peekRow, { kind: 'orders', id: order!.id })).status).toBe(404)
  await house.rows('UPDATE account_role SET site_id = NULL WHERE account_id = 6')
})

describe('views', () => {
  const names = async (client: Client) => (await client.must(listViews, {})).rows.filter((view) => view.id !== null).map((view) => view.name)

  test('one’s own, a team’s and everybody’s reach whom they should', async () => {
    const fields = { kind: 'orders' as const, address: 'state=ready' }
    await cast.coordinator.must(saveView, { ...fields, name: 'For me', sharedWith: 'nobody' })
    await cast.coordinator.must(saveView, { ...fields, name: 'For the team', sharedWith: 'team' })
    await cast.coordinator.must(saveView, { ...fields, name: 'For all', sharedWith: 'all' })
    expect(await names(cast.coordinator)).toEqual(expect.arrayContaining(['For me', 'For the team', 'For all']))
    // Tobias is of the help desk too; Petra is of no team.
    expect(await names(tobias)).toEqual(expect.arrayContaining(['For the team', 'For all']))
    expect(await names(tobias)).not.toContain('For me')
    expect(await names(cast.clerk)).toContain('For all')
    expect(await names(cast.clerk)).not.toContain('For the team')
    expect((await cast.clerk.call(saveView, { ...fields, name: 'Ours', sharedWith: 'team' })).problem.reasons![0]!.field).toBe('sharedWith')
  })

  test('a team is given in Setup, and with it what the team shares', async () => {
    const admin = await new Client(server.url).signIn('wendeline.stroud')
    const { accounts, teams } = await admin.must(readAccounts, {})
    const petra = accounts.find((account) => account.name === 'Petra Lindqvist')!
    const desk = teams.find((team) => team.name === 'Help desk')!
    const { id, roles, approvalLimitMinor, disabled } = petra
    await admin.must(editAccount, { id, version: petra.version, roles, approvalLimitMinor, disabled, teamId: desk.id })
    expect(await names(cast.clerk)).toContain('For the team')
    const gone = await admin.call(editAccount, { id, version: petra.version + 1, roles, approvalLimitMinor, disabled, teamId: 999 })
    expect(gone.problem.reasons![0]!.field).toBe('teamId')
    await admin.must(editAccount, { id, version: petra.version + 1, roles, approvalLimitMinor, disabled, teamId: null })
    expect(await names(cast.clerk)).not.toContain('For the team')
  })

  test('a name once, an address that can be read, a version that is current, and only by whom it belongs to', async () => {
    const made = await tobias.must(saveView, { name: 'Mine', kind: 'requests', address: 'state=new', sharedWith: 'all' })
    const view = made.rows.find((row) => row.key === made.key)!
    expect((await tobias.call(saveView, { name: 'Mine', kind: 'orders', address: '', sharedWith: 'nobody' })).problem.reasons![0]).toMatchObject({
      code: 'name_taken',
      field: 'name',
    })
    expect((await tobias.call(saveView, { name: 'Other', kind: 'orders', address: 'state=flying', sharedWith: 'nobody' })).problem.reasons![0]!.code).toBe(
      'list_address',
    )
    const change = { id: view.id!, name: 'Mine, newer', kind: 'requests' as const, address: 'state=asked', sharedWith: 'nobody' as const }
    expect((await cast.coordinator.call(changeView, { ...change, version: 1 })).status).toBe(404)
    await tobias.must(changeView, { ...change, version: 1 })
    expect((await tobias.call(changeView, { ...change, version: 1 })).status).toBe(409)
    expect(await names(cast.coordinator)).not.toContain('Mine, newer')
    expect((await cast.coordinator.call(dropView, { id: view.id! })).status).toBe(404)
    await tobias.must(dropView, { id: view.id! })
    expect(await names(tobias)).not.toContain('Mine, newer')
  })

  test('everybody has a usual view; one that is gone gives way to “Outstanding”', async () => {
    expect((await tobias.must(listViews, {})).usual).toBe('outstanding')
    await tobias.must(chooseUsualView, { key: 'late' })
    expect((await tobias.must(listViews, {})).usual).toBe('late')
    const { key, rows } = await cast.coordinator.must(saveView, { name: 'Lent', kind: 'orders', address: '', sharedWith: 'all' })
    await tobias.must(chooseUsualView, { key })
    expect((await cast.coordinator.must(listViews, {})).usual).toBe('outstanding')
    await cast.coordinator.must(dropView, { id: rows.find((row) => row.key === key)!.id! })
    expect((await tobias.must(listViews, {})).usual).toBe('outstanding')
    const own = await cast.coordinator.must(saveView, { name: 'Kept', kind: 'orders', address: '', sharedWith: 'nobody' })
    expect((await tobias.call(chooseUsualView, { key: own.key })).problem.reasons![0]!.code).toBe('view_unknown')
  })
})

describe('files', () => {
  const bytes = async (ask: string, format: 'csv' | 'xlsx', kind = 'orders') => {
    const reply = await fetch(`${server.url}/api/lists/${kind}/export?${new URLSearchParams({ ask, format })}`, {
      headers: { Cookie: cast.coordinator.session },
    })
    return { reply, content: Buffer.from(await reply.arrayBuffer()) }
  }

  test('CSV by RFC 4180, every row of the list in its order, with its columns', async () => {
    const ask = 'state=closed&sort=-closed&columns=number,summary,priority,standing,place,estimate,closed,payer'
    const { reply, content } = await bytes(ask, 'csv')
    expect(reply.headers.get('content-type')).toBe('text/csv; charset=utf-8')
    expect(reply.headers.get('content-disposition')).toBe('attachment; filename="orders-2026-11-23.csv"')
    const rows = parse<Record<string, string>>(content, { bom: true, columns: true, relax_column_count: false, record_delimiter: '\r\n' })
    const lines = await everyOrder(ask)
    expect(rows.map((row) => row.Number)).toEqual(lines.map((line) => line.number))
    expect(Object.keys(rows[0]!)).toEqual(['Number', 'Summary', 'Priority', 'Target', 'Place', 'Estimate', 'Closed', 'Payer'])
    expect(rows.map((row) => Math.round(Number(row.Estimate) * 100))).toEqual(lines.map((line) => line.estimate ?? 0))
    // In the time of the site: 23 November is winter time there, the same as UTC.
    const winter = lines.findIndex((line) => line.closed!.startsWith('2026-11'))
    expect(rows[winter]!.Closed).toBe(lines[winter]!.closed!.slice(0, 16).replace('T', ' '))
  })

  test('XLSX opens in another program’s reader (SheetJS) with text as text, amounts as numbers and days as days', async () => {
    const ask = 'state=closed&finished=2026-10-01..2026-10-31&sort=-finished&columns=number,summary,estimate,finished'
    const { content } = await bytes(ask, 'xlsx')
    const book = read(content, { cellDates: true })
    const sheet = book.Sheets[book.SheetNames[0]!]!
    const rows = utils.sheet_to_json<{ Number: string; Summary: string; Estimate?: number; Finished: Date }>(sheet, { UTC: true })
    const lines = await everyOrder(ask)
    expect(rows.map((row) => row.Number)).toEqual(lines.map((line) => line.number))
    expect(rows.map((row) => Math.round((row.Estimate ?? 0) * 100))).toEqual(lines.map((line) => line.estimate ?? 0))
    const summer = lines.findIndex((line) => line.finished! < '2026-10-24')
    // What the clock on the wall showed, an hour ahead of UTC in summer time.
    const expected = new Date(lines[summer]!.finished!).getTime() + 3_600_000
    // A workbook keeps a moment as a fraction of a day: to the second, not closer.
    expect(Math.abs(rows[summer]!.Finished.getTime() - expected)).toBeLessThan(1_000)
  })

  test('no formula runs: what begins like one is text, in both', async () => {
    const evil = ['=HYPERLINK("http://evil.example","x")', '+353 1', '-2+3', '@SUM(1)', '=cmd|"/c calc"!A0']
    for (const summary of evil) await accepted(cast, (await report(cast, { summary })).id)
    const ask = 'state=draft&columns=number,summary'
    const csv = parse<{ Summary: string }>((await bytes(ask, 'csv')).content, { bom: true, columns: true })
    for (const summary of evil) expect(csv.map((row) => row.Summary)).toContain(`'${summary}`)
    expect(csv.every((row) => !/^[=+\-@\t\r]/.test(row.Summary))).toBe(true)
    const book = read((await bytes(ask, 'xlsx')).content)
    const cells = Object.entries(book.Sheets[book.SheetNames[0]!]!).filter(([name]) => !name.startsWith('!')) as [string, { t: string; f?: string }][]
    expect(cells.every(([, cell]) => cell.t === 's' && cell.f === undefined)).toBe(true)
  })

  test('requests too; a line that is dropped half way holds nothing up', async () => {
    const { content } = await bytes('state=new&columns=number,channel,reporter,received', 'csv', 'requests')
    const rows = parse<Record<string, string>>(content, { bom: true, columns: true })
    expect(rows).toHaveLength((await everyRequest('state=new')).length)
    const controller = new AbortController()
    const started = fetch(`${server.url}/api/lists/orders/export?format=csv`, { headers: { Cookie: cast.coordinator.session }, signal: controller.signal })
    const reader = (await started).body!.getReader()
    await reader.read()
    controller.abort()
    expect((await bytes('state=ready', 'csv')).reply.status).toBe(200)
  })
})

test('a row changed meanwhile is told of with its new version', async () => {
  const { id } = await orderAt(cast, 'draft')
  await cast.coordinator.must(editOrder, { id, version: await version(cast, id), summary: 'Two lights are out' })
  const row = (await everyOrder('state=draft')).find((one) => one.id === id)!
  expect(row).toMatchObject({ summary: 'Two lights are out', version: await version(cast, id) })
})
