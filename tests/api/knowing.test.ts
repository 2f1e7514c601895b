import { editAccount, findPeople, readAccounts, readDemoPeople, readNotices, readVocabulary, signIn } from '#contract/people'
import { dispatchOrder } from '#contract/dispatch'
import { findParts, listJobs, readOutcomeLists, stopClock, switchStint } from '#contract/field'
import { readFigures, readFlow, readStation } from '#contract/insight'
import { listPayables, listStatements, readStatement } from '#contract/ledger'
import { listRecordLines, search } from '#contract/lists'
import { editHold, editOrder, holdOrder, listOrders, readOrder, reopenOrder, submitOrder } from '#contract/orders'
import type { OrderLine } from '#contract/orders'
import { findAssets, findPlaces, readContext } from '#contract/places'
import { listDues } from '#contract/preventive'
import { acceptRequest, findCounterSpots, listRequests, readRequest, takeUpRequest, triageRequest } from '#contract/requests'
import { STATION_STATES } from '#core/orders'
import { accepted, approved, castAt, Client, complete, dispatched, House, orderAt, orderInFull, report, version } from '../kit'
import type { Cast, Running } from '../kit'

/** What the Desk reads, held against the rows themselves. */
let house: House
let server: Running
let cast: Cast
const NOW = '2026-11-23 10:30:00'

beforeAll(async () => {
  house = await House.open('knowing')
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

describe('the Flow', () => {
  test('counts are those of the rows, and the three parts of a tide add up', async () => {
    const { stations } = await cast.coordinator.must(readFlow, {})
    for (const station of stations) {
      expect(station.onTime + station.close + station.past).toBe(station.count)
      const states = STATION_STATES[station.station]
      if (!states.length) continue
      const [row] = await house.rows<{ n: number; past: string }>(
        `SELECT COUNT(*) AS n, SUM(COALESCE(finished_at, clock_stopped_at, ?) > completion_due_at) AS past FROM work_order WHERE state IN (?) AND discarded_at IS NULL`,
        [NOW, states],
      )
      expect([station.station, station.count]).toEqual([station.station, row!.n])
      expect(Math.abs(station.past - Number(row!.past))).toBeLessThanOrEqual(1)
    }
    const intake = stations.find((one) => one.station === 'intake')!
    expect(intake.count).toBe((await house.rows<{ n: number }>("SELECT COUNT(*) AS n FROM request WHERE state = 'new' AND taken_up_at IS NULL"))[0]!.n)
  })

  test('taking up moves a request from Intake to Triage, once', async () => {
    const { id } = await report(cast)
    const at = async (station: 'intake' | 'triage') => (await cast.coordinator.must(listRequests, { station, limit: 100 })).rows.some((row) => row.id === id)
    expect([await at('intake'), await at('triage')]).toEqual([true, false])
    await cast.coordinator.must(takeUpRequest, { id, version: 1 })
    expect([await at('intake'), await at('triage')]).toEqual([false, true])
    expect((await cast.coordinator.call(takeUpRequest, { id, version: 2 })).problem.reasons![0]!.code).toBe('taken_up')
  })
})

describe('a station with nothing open', () => {
  const look = (station: 'intake' | 'triage' | 'planning' | 'dispatch' | 'wrapup', since: string) => cast.coordinator.must(readStation, { station, since })
  const LONG_AGO = '2026-11-01T00:00:00Z'

  test('the three that pass their target next, in that order, are those of the rows; none that is past or stands still', async () => {
    for (const station of ['planning', 'dispatch'] as const) {
      const rows = await house.rows<{ id: number }>(
        'SELECT id FROM work_order WHERE state IN (?) AND discarded_at IS NULL AND archived = 0 AND clock_stopped_at IS NULL AND completion_due_at > ? ORDER BY completion_due_at, id LIMIT 3',
        [STATION_STATES[station], NOW],
      )
      expect((await look(station, LONG_AGO)).next.map((one) => one.id)).toEqual(rows.map((row) => row.id))
    }
    const triage = await house.rows<{ id: number }>(
      "SELECT id FROM request WHERE (state = 'asked' OR (state = 'new' AND taken_up_at IS NOT NULL)) AND triage_due_at > ? ORDER BY triage_due_at, id LIMIT 3",
      [NOW],
    )
    expect((await look('triage', LONG_AGO)).next.map((one) => one.id)).toEqual(triage.map((row) => row.id))
  })

  test('finished work waits since it was finished, the longest first', async () => {
    const rows = await house.rows<{ id: number }>(
      "SELECT id FROM work_order WHERE state = 'done' AND archived = 0 ORDER BY finished_at, completion_due_at, id LIMIT 3",
    )
    const { next } = await look('wrapup', LONG_AGO)
    expect(next.map((one) => [one.id, one.waitsFor])).toEqual(rows.map((row) => [row.id, 'somebody to check it']))
  })

  test('what others changed since then is one line for each record, with the last; one’s own acts are no news', async () => {
    const { id } = await orderAt(cast, 'to_approve')
    const since = '2026-11-23T10:29:59Z'
    expect((await look('planning', since)).changed.filter((one) => one.id === id)).toEqual([])
    expect((await cast.approver.must(readStation, { station: 'planning', since })).changed.find((one) => one.id === id)).toMatchObject({
      who: 'Maren Quill',
      kind: 'order.submit',
      times: expect.any(Number),
    })
    // With what it was about: a clock is set to something.
    const job = await orderAt(cast, 'dispatched')
    await cast.technician.must(switchStint, { visitId: job.visitId, kind: 'travel' })
    const field = await cast.coordinator.must(readStation, { station: 'field', since })
    expect(field.changed.find((one) => one.id === job.id)).toMatchObject({ kind: 'field.stint', details: { stint: 'travel' } })
    await cast.technician.must(stopClock, { visitId: job.visitId })
  })

  test('who may not read the Desk is told nothing; a station that there is not is refused', async () => {
    expect((await cast.technician.call(readStation, { station: 'planning', since: LONG_AGO })).status).toBe(403)
    expect((await cast.coordinator.call(readStation, { station: 'nowhere' as never, since: LONG_AGO })).status).toBe(400)
  })
})

test('most payers of the demo have money left of their budget', async () => {
  const payers = await house.rows<{ budget: number; used: string }>(
    "SELECT budget_minor AS budget, (SELECT COALESCE(SUM(net_minor), 0) FROM charge WHERE payer_id = p.id AND month >= '2026-01') AS used FROM payer p WHERE budget_minor IS NOT NULL",
  )
  const left = payers.filter(({ budget, used }) => Number(used) < budget)
  expect(payers.length).toBeGreaterThan(4)
  expect(left.length).toBeGreaterThan(payers.length / 2)
})

describe('lists', () => {
  /** All rows of a list, page by page. */
  async function all(ask: object, limit: number): Promise<OrderLine[]> {
    const rows: OrderLine[] = []
    for (let after: string | null | undefined; after !== null;) {
      const page = await cast.coordinator.must(listOrders, { ...ask, limit, ...(after ? { after } : {}) })
      rows.push(...page.rows)
      after = page.next
    }
    return rows
  }

  test.each([
    ['due', 'completion_due_at, id'],
    ['priority', 'priority_rank, completion_due_at, id'],
    ['newest', 'id DESC'],
  ] as const)('by %s: small pages give every row once, in the order of the whole', async (sort, order) => {
    const expected = (
      await house.rows<{ id: number }>(
        `SELECT id FROM work_order WHERE state IN ('ready', 'dispatched') AND discarded_at IS NULL AND archived = 0 ORDER BY ${order}`,
      )
    ).map((row) => row.id)
    expect((await all({ station: 'dispatch', sort }, 3)).map((row) => row.id)).toEqual(expected)
    expect((await all({ station: 'dispatch', sort }, 100)).map((row) => row.id)).toEqual(expected)
  })

  test('filters hold for every row, words and places alike', async () => {
    const urgent = await all({ station: 'planning', priority: 'urgent' }, 50)
    expect(urgent.length).toBeGreaterThan(0)
    expect(urgent.every((row) => row.priority === 'urgent')).toBe(true)
    const drains = await all({ state: 'closed', q: 'Drain' }, 100)
    // The word stands in the one line, in the description or in the name of the place, and every row it stands in is there.
    const said = await house.rows<{ id: number }>(
      "SELECT o.id FROM work_order o LEFT JOIN place p ON p.id = o.place_id WHERE o.state = 'closed' AND archived = 0 AND CONCAT(' ', summary, ' ', description, ' ', COALESCE(p.search_text, '')) LIKE '%drain%'",
    )
    expect(drains.length).toBeGreaterThan(0)
    expect(drains.every((row) => said.some((one) => one.id === row.id))).toBe(true)
    const lantern = await all({ station: 'dispatch', q: 'lantern house' }, 100)
    expect(lantern.every((row) => row.place!.startsWith('LAN'))).toBe(true)
    const [found] = await all({ q: 'W-31001' }, 10)
    expect(found!.number).toBe('W-31001')
  })

  test('requests are paged by when they are due', async () => {
    const expected = (await house.rows<{ id: number }>("SELECT id FROM request WHERE state = 'declined' ORDER BY triage_due_at, id LIMIT 40")).map(
      (row) => row.id,
    )
    const first = await cast.coordinator.must(listRequests, { state: 'declined', limit: 25 })
    const second = await cast.coordinator.must(listRequests, { state: 'declined', limit: 15, after: first.next! })
    expect([...first.rows, ...second.rows].map((row) => row.id)).toEqual(expected)
  })

  test('a row names who is planned on it', async () => {
    const { id } = await orderAt(cast, 'ready')
    await dispatched(cast, id, { technicianIds: [1, 2] })
    const row = (await all({ station: 'dispatch' }, 100)).find((one) => one.id === id)!
    expect(row.who).toBe('Bram Oyelaran, Sunniva Teague')
  })
})

describe('what is known around a request', () => {
  test('the freezer that broke again and again, still under warranty', async () => {
    const [asset] = await house.rows<{ id: number; place_id: number }>("SELECT id, place_id FROM asset WHERE tag = 'F-003'")
    const context = await cast.coordinator.must(readContext, { assetId: asset!.id, placeId: asset!.place_id })
    expect(context.asset).toMatchObject({ tag: 'F-003', underWarranty: true, warrantyUntil: '2026-12-17' })
    expect(context.asset!.repairs90Days).toBeGreaterThanOrEqual(4)
    expect(context.history.length).toBeGreaterThan(2)
    expect(context.history.every((one) => one.costMinor > 0)).toBe(true)
  })

  test('the reporter’s earlier requests, and what is open here, without the request itself', async () => {
    const first = await report(cast, { email: 'twice@reporter.example' })
    const second = await report(cast, { email: 'twice@reporter.example' })
    const context = await cast.coordinator.must(readContext, { requestId: second.id, placeId: 20 })
    expect(context.reporter!.earlier.map((one) => one.id)).toEqual([first.id])
    expect(context.open.some((one) => one.type === 'request' && one.id === first.id)).toBe(true)
    expect(context.open.some((one) => one.type === 'request' && one.id === second.id)).toBe(false)
  })

  test('a place says how to get in, from the nearest place above that says so', async () => {
    const { rows } = await cast.coordinator.must(findPlaces, { q: 'TID-104' })
    const context = await cast.coordinator.must(readContext, { placeId: rows[0]!.id })
    expect(context.place).toMatchObject({ code: 'TID-104', within: 'First floor, Tidehall', access: 'Badge at the north door. Wet floors: boots.' })
  })
})

describe('finding', () => {
  test('numbers lead to their record, names to the thing that bears them', async () => {
    expect((await cast.coordinator.must(search, { q: 'W-31000' })).rows[0]).toMatchObject({ type: 'order', title: 'W-31000' })
    expect((await cast.coordinator.must(search, { q: '31000' })).rows[0]).toMatchObject({ title: 'W-31000' })
    expect((await cast.coordinator.must(search, { q: 'LIFT-1' })).rows[0]).toMatchObject({ type: 'asset', title: 'LIFT-1' })
    expect((await cast.coordinator.must(search, { q: 'osric' })).rows[0]).toMatchObject({ type: 'person', title: 'Osric Vane' })
    expect((await cast.coordinator.must(search, { q: 'x' })).rows).toEqual([])
  })

  test('percent signs and quotes in a search are words like any others', async () => {
    for (const q of ['%', "'; DROP TABLE site; --", '_', '\\']) {
      expect((await cast.coordinator.call(search, { q })).status).toBe(200)
      expect((await cast.anybody.must(findCounterSpots, { site: 'SKE', q })).rows.length).toBeLessThanOrEqual(12)
    }
    expect(await house.rows('SELECT COUNT(*) AS n FROM site')).toEqual([{ n: 2 }])
  })

  test('people, assets, parts and places by part of what they are called', async () => {
    expect((await cast.coordinator.must(findPeople, { q: '0146' })).rows[0]!.name).toBe('Wendeline Stroud')
    expect((await cast.coordinator.must(findAssets, { q: 'chiller compressor' })).rows.map((row) => row.tag)).toContain('CH-1-CA')
    expect((await cast.technician.must(findParts, { q: 'led 1200' })).rows[0]).toMatchObject({ code: 'EL-101', unit: 'pc' })
    expect((await cast.anybody.must(findCounterSpots, { site: 'ske', q: 'cafe' })).rows.map((row) => row.code)).toContain('BRK-001')
    expect((await cast.anybody.must(findCounterSpots, { site: 'SKE', q: 'hatchery' })).rows).toEqual([])
  })

  test.each(['places', 'assets', 'people', 'vendors', 'payers', 'parts'] as const)('the register of %s pages through every row once', async (register) => {
    const seen = new Set<number>()
    for (let after: string | undefined, more = true; more;) {
      const page = await cast.coordinator.must(listRecordLines, { register, limit: 40, ...(after ? { after } : {}) })
      for (const row of page.rows) {
        expect(seen.has(row.id)).toBe(false)
        seen.add(row.id)
      }
      after = page.next ?? undefined
      more = page.next !== null
    }
    const table = { places: 'place', assets: 'asset', people: 'person', vendors: 'vendor', payers: 'payer', parts: 'part' }[register]
    expect(seen.size).toBe((await house.rows<{ n: number }>(`SELECT COUNT(*) AS n FROM ${table}`))[0]!.n)
  })
})

describe('figures', () => {
  test('every month counts what its rows say', async () => {
    const figures = await cast.coordinator.must(readFigures, {})
    const march = figures.byMonth.find((row) => row.month === '2026-03')!
    const [requests] = await house.rows<{ n: number }>("SELECT COUNT(*) AS n FROM request WHERE received_at >= '2026-03-01' AND received_at < '2026-04-01'")
    const [orders] = await house.rows<{ n: number; good: string }>(
      "SELECT COUNT(*) AS n, SUM(finished_at <= completion_due_at) AS good FROM work_order WHERE finished_at >= '2026-03-01' AND finished_at < '2026-04-01'",
    )
    expect(march).toEqual({ month: '2026-03', requests: requests!.n, finished: orders!.n, finishedOnTime: Number(orders!.good) })
    expect(figures.repeats.every((row) => row.repairs >= 3 && row.costMinor > 0)).toBe(true)
    // Among as many repairs the order is the same whenever it is looked at.
    const inOrder = [...figures.repeats].sort((a, b) => b.repairs - a.repairs || (a.tag < b.tag ? -1 : 1))
    expect(figures.repeats.map(({ tag }) => tag)).toEqual(inOrder.map(({ tag }) => tag))
  })

  test('statements of a month add up to its charges, and those to the journal', async () => {
    const { rows, months } = await cast.clerk.must(listStatements, { month: '2026-10' })
    expect(months.filter((one) => one.closedAt).length).toBeGreaterThanOrEqual(3)
    const [sum] = await house.rows<{ net: string; gross: string }>(
      "SELECT SUM(net_minor) AS net, SUM(gross_minor) AS gross FROM charge WHERE month = '2026-10'",
    )
    expect(rows.reduce((total, row) => total + row.netMinor, 0)).toBe(Number(sum!.net))
    const [journal] = await house.rows<{ debit: string }>(
      "SELECT SUM(debit_minor) AS debit FROM journal_entry JOIN posting ON posting.id = posting_id WHERE month = '2026-10' AND (account LIKE 'receivable:%' OR account LIKE 'own-cost:%')",
    )
    expect(Number(journal!.debit)).toBe(Number(sum!.gross))
    for (const row of rows) {
      const statement = await cast.clerk.must(readStatement, { payerId: row.payerId, month: row.month })
      expect(statement.jobList.reduce((total, job) => total + job.grossMinor, 0)).toBe(row.grossMinor)
    }
    expect((await cast.clerk.must(listPayables, {})).rows.length).toBeGreaterThan(10)
  })

  test('dues are done, ordered, ahead or late', async () => {
    const { rows } = await cast.coordinator.must(listDues, {})
    expect(rows.length).toBeGreaterThan(5)
    for (const due of rows) if (due.state === 'ahead') expect(due.dueOn >= '2026-11-23').toBe(true)
  })
})

describe('people and notices', () => {
  test('a decision reaches whoever asked, and reading it empties the bell', async () => {
    const { id } = await orderAt(cast, 'draft')
    await cast.coordinator.must(readNotices, {})
    await approved(cast, id)
    const { number } = await cast.coordinator.must(readOrder, { id })
    await cast.coordinator.hears((sentence) => sentence.startsWith(`${number} was approved`))
    expect(await cast.coordinator.must(readNotices, {})).toEqual({ unread: 0 })
  })

  test('a new priority tells the technician at once', async () => {
    const { id } = await orderAt(cast, 'dispatched')
    await cast.coordinator.must(editOrder, { id, version: await version(cast, id), consequence: 'safety', urgency: 'now' })
    await cast.technician.hears((sentence) => sentence.includes('is Emergency now'))
  })

  test('a deputy decides within the limit of whoever is away, and the record says so', async () => {
    await house.rows("UPDATE deputy SET from_at = '2026-11-01', until_at = '2026-12-01'")
    const { id } = await orderAt(cast, 'draft')
    await cast.coordinator.must(editOrder, { id, version: await version(cast, id), ...complete, estimateMinor: 2_000_000 })
    await cast.coordinator.must(submitOrder, { id, version: await version(cast, id) })
    const { approveOrder } = await import('#contract/orders')
    await cast.approver.must(approveOrder, { id, version: await version(cast, id) })
    expect((await orderInFull(cast.coordinator, id)).approvals[0]).toMatchObject({
      decidedBy: 'Ines Ferrall',
      actingFor: 'Osric Vane',
      verdict: 'approved',
    })
    await house.rows("UPDATE deputy SET until_at = '2026-11-02'")
  })

  test('an account that is closed is out at once; nobody closes their own', async () => {
    const admin = await new Client(server.url).signIn('wendeline.stroud')
    const manager = await new Client(server.url).signIn('yusuf.adeyemi-rourke')
    const { accounts } = await admin.must(readAccounts, {})
    const find = (email: string) => accounts.find((one) => one.email.startsWith(email))!
    const his = find('yusuf')
    await admin.must(editAccount, { id: his.id, version: his.version, roles: his.roles, approvalLimitMinor: null, disabled: true })
    expect((await manager.call(readFigures, {})).status).toBe(401)
    await expect(new Client(server.url).signIn('yusuf.adeyemi-rourke')).rejects.toThrow('401')
    const hers = find('wendeline')
    expect(
      (await admin.call(editAccount, { id: hers.id, version: hers.version, roles: [], approvalLimitMinor: null, disabled: false })).problem.reasons![0]!.code,
    ).toBe('own_account')
    expect((await admin.call(editAccount, { id: his.id, version: his.version, roles: [], approvalLimitMinor: null, disabled: false })).status).toBe(409)
  })

  test('which holds stop the clock is a setting', async () => {
    const admin = await new Client(server.url).signIn('wendeline.stroud')
    const stopped = async () => {
      const { id } = await orderAt(cast, 'ready')
      await cast.coordinator.must(holdOrder, { id, version: await version(cast, id), holdReason: 'vendor', reason: 'They have not called back.' })
      return (await cast.coordinator.must(readOrder, { id })).target.stoppedAt !== null
    }
    expect(await stopped()).toBe(false)
    await admin.must(editHold, { reason: 'vendor', stopsClock: true })
    expect(await stopped()).toBe(true)
  })
})

test('one order may answer several requests, and none that is over', async () => {
  const first = await report(cast)
  const orderId = await accepted(cast, first.id)
  const second = await report(cast)
  const sheet = await cast.coordinator.must(triageRequest, { id: second.id, version: 1, categoryId: 1, consequence: 'room', urgency: 'today', payerId: 3 })
  await cast.coordinator.must(acceptRequest, { id: second.id, version: sheet.version, orderId })
  expect((await cast.coordinator.must(readOrder, { id: orderId })).requests.map((request) => request.id).sort()).toEqual([first.id, second.id].sort())
  const third = await report(cast)
  const decided = await cast.coordinator.must(triageRequest, { id: third.id, version: 1, categoryId: 1, consequence: 'room', urgency: 'today', payerId: 3 })
  const done = await orderAt(cast, 'done')
  expect((await cast.coordinator.call(acceptRequest, { id: third.id, version: decided.version, orderId: done.id })).problem.reasons![0]!.code).toBe(
    'order_over',
  )
  expect((await cast.coordinator.must(readRequest, { id: third.id })).state).toBe('new')
  await cast.coordinator.must(reopenOrder, { id: done.id, version: await version(cast, done.id), reason: 'Out again.' })
})

test('the small lists forms offer from are whole, and Rounds spans today, the week and the month', async () => {
  const words = await cast.coordinator.must(readVocabulary, {})
  expect([words.payers.length, words.teams.length, words.trades.length]).toEqual([11, 6, 12])
  expect(words.accounts.find((one) => one.name === 'Ines Ferrall')!.roles).toEqual(['approver'])
  expect((await cast.anybody.must(readOutcomeLists, {})).symptoms).toContain('Leaking')
  const [today, month] = [await cast.technician.must(listJobs, {}), await cast.technician.must(listJobs, { range: 'month' })]
  expect(month.rows.length).toBeGreaterThan(today.rows.length)
  const starts = month.rows.map((row) => row.plannedStart)
  expect(starts).toEqual([...starts].sort())
})

test('who has nothing left to do today sees the next day that has something, whole and no other', async () => {
  const [free] = await house.rows<{ id: number; email: string }>(
    `SELECT t.id, a.email FROM technician t JOIN account a ON a.id = t.account_id
     WHERE a.disabled_at IS NULL AND NOT EXISTS (SELECT 1 FROM visit v WHERE v.technician_id = t.id AND v.state IN ('planned', 'on_site')) LIMIT 1`,
  )
  const mine = await new Client(server.url).signIn(free!.email.split('@')[0]!)
  const asked = async (range?: 'week') => (await mine.must(listJobs, range ? { range } : {})).next.map((job) => job.plannedStart)
  expect(await asked()).toEqual([])
  for (const day of ['2026-11-27T13', '2026-11-26T14', '2026-11-26T09']) {
    const { id } = await orderAt(cast, 'ready')
    const [start, end] = [`${day}:00:00.000Z`, `${day}:45:00.000Z`]
    await cast.coordinator.must(dispatchOrder, { id, version: await version(cast, id), technicianIds: [free!.id], start, end })
  }
  expect(await asked()).toEqual(['2026-11-26T09:00:00.000Z', '2026-11-26T14:00:00.000Z'])
  expect(await asked('week')).toEqual([])
  const { id } = await orderAt(cast, 'ready')
  const [start, end] = ['2026-11-23T15:00:00.000Z', '2026-11-23T16:00:00.000Z']
  await cast.coordinator.must(dispatchOrder, { id, version: await version(cast, id), technicianIds: [free!.id], start, end })
  expect(await asked()).toEqual([])
})

test('the sign-in page of a demo world offers its people, and that of any other offers nobody', async () => {
  const offered = await cast.anybody.must(readDemoPeople, {})
  // Those whose account the tests above closed are offered no more.
  expect(offered.rows.map((one) => one.roles[0])).toEqual(expect.arrayContaining(['coordinator', 'approver', 'billing_clerk', 'administrator', 'technician']))
  for (const { email } of offered.rows) expect((await new Client(server.url).call(signIn, { email, password: offered.password! })).status).toBe(200)
  expect(offered.rows.map((one) => one.name)).toContain('Osric Vane')
  await house.rows("UPDATE account SET disabled_at = '2026-11-01' WHERE email LIKE 'osric.vane%'")
  expect((await cast.anybody.must(readDemoPeople, {})).rows.map((one) => one.name)).not.toContain('Osric Vane')
  await house.rows("UPDATE account SET disabled_at = NULL WHERE email LIKE 'osric.vane%'")
  await house.rows("DELETE FROM setting WHERE name = 'demo_world'")
  expect(await cast.anybody.must(readDemoPeople, {})).toEqual({ password: null, rows: [] })
})
