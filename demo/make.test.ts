import Holidays from 'date-holidays'
import { imbalance } from '#core/ledger'
import { ORDER_STATES } from '#core/orders'
import { irishHolidays } from './make'
import { Rng } from './rng'
import { apart } from '../tests/kit/apart'
import type { World } from './world'

const NOW = '2026-11-23T10:30:00Z'
const OTHERS = ['2026-11-25T02:00:00Z', '2026-11-28T13:00:00Z']
type Made = Pick<World, 'rows'>
let [world, again]: Made[] = []
let others: Map<string, Made>

/** Worlds are made as the program makes them, bundled and two at once: through the runner each takes six times as long. */
beforeAll(async () => {
  const program = await apart(
    __dirname,
    `import { makeWorld } from './make'
    const run = (at: string) => makeWorld(7, new Date(at)).then(({ rows }) => ({ rows }))`,
  )
  const makeAt = (at: string) => program.run<Made>(at)
  ;[world, again] = await Promise.all([makeAt(NOW), makeAt(NOW)])
  others = new Map(await Promise.all(OTHERS.map(async (at) => [at, await makeAt(at)] as const)))
  program.end()
})

test('Irish public holidays agree with a holiday package, for ten years (package date-holidays)', () => {
  for (let year = 2023; year <= 2032; year++) {
    const days = new Holidays('IE')
      .getHolidays(year)
      .filter((day) => day.type === 'public')
      .map((day) => day.date.slice(0, 10))
    expect([year, [...new Set(irishHolidays(year))].sort()]).toEqual([year, [...new Set(days)].sort()])
  }
})

test('passwords are kept with the care asked for (OWASP Password Storage Cheat Sheet: Argon2id, 19 MiB, two rounds, one lane)', () => {
  const kept = [...new Set(world!.rows.accounts.map(({ passwordHash }) => passwordHash))]
  for (const one of kept) expect(one).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/)
  expect(kept.length).toBeGreaterThan(0)
})

test('the same seed and the same moment give the same world', () => {
  expect(JSON.stringify(again!.rows)).toBe(JSON.stringify(world!.rows))
  // All chance comes from here, and another seed gives another.
  const drawn = (seed: number) =>
    Array.from(
      { length: 5 },
      (
        (rng) => () =>
          rng.next()
      )(new Rng(seed)),
    )
  expect(drawn(7)).toEqual(drawn(7))
  expect(drawn(8)).not.toEqual(drawn(7))
})

test('is as large and as varied as it should be', () => {
  expect(world!.rows.requests.length).toBeGreaterThan(3_700)
  expect(world!.rows.orders.length).toBeGreaterThan(3_000)
  expect(world!.rows.places.length).toBeGreaterThan(260)
  const spaces = world!.rows.places.filter((place) => place.kind === 'space').length
  expect(Math.abs(spaces - 240)).toBeLessThan(10)
  expect(Math.abs(world!.rows.assets.length - 420)).toBeLessThan(20)
  expect(world!.rows.people.length).toBeGreaterThan(170)
  expect(world!.rows.vendors).toHaveLength(11)
  expect(world!.rows.payers).toHaveLength(11)
  expect(world!.rows.technicians).toHaveLength(14)
  expect(world!.rows.periods.filter((period) => period.closedAt).length).toBeGreaterThanOrEqual(3)
  expect([...new Set(world!.rows.orders.map((order) => order.state))].sort()).toEqual([...ORDER_STATES].sort())
})

test('no state without the events that lead to it, and nothing in the future', () => {
  const lastOf = new Map<number, string>()
  for (const event of world!.rows.events) if (event.orderId && event.kind.startsWith('order.') && event.toState) lastOf.set(event.orderId, event.toState)
  expect(world!.rows.orders.filter((order) => lastOf.get(order.id!) !== order.state).map(({ number }) => number)).toEqual([])
  expect(world!.rows.events.filter((event) => event.at > new Date(NOW)).map(({ kind }) => kind)).toEqual([])
  expect(world!.rows.events.map((event) => event.seq)).toEqual(world!.rows.events.map((_, index) => index + 1))
})

test('every posting balances and every charge is the sum of its lines', () => {
  const byPosting = new Map<number, { account: string; debit: number; credit: number }[]>()
  for (const entry of world!.rows.journalEntries)
    byPosting.set(entry.postingId, [...(byPosting.get(entry.postingId) ?? []), { account: entry.account, debit: entry.debitMinor, credit: entry.creditMinor }])
  for (const entries of byPosting.values()) expect(imbalance(entries)).toBe(0)
  const net = new Map<number, number>()
  for (const line of world!.rows.chargeLines) net.set(line.chargeId, (net.get(line.chargeId) ?? 0) + line.netMinor)
  for (const charge of world!.rows.charges) expect(net.get(charge.id!)).toBe(charge.netMinor)
})

test('there are failures worth noticing: repeats, and a warranty about to end on one of them', () => {
  const recent = new Date(new Date(NOW).getTime() - 90 * 86_400_000)
  const repairs = (tag: string) => {
    const asset = world!.rows.assets.find((one) => one.tag === tag)!
    return world!.rows.orders.filter((order) => order.assetId === asset.id && order.createdAt > recent).length
  }
  for (const tag of ['CH-1-CA', 'LIFT-1', 'F-003']) expect(repairs(tag)).toBeGreaterThanOrEqual(2)
  expect(world!.rows.assets.find((one) => one.tag === 'F-003')!.warrantyUntil).toBe('2026-12-17')
})

test('some of what is on the desk conflicts: one person promised to two doors at once, and the same thing told twice', () => {
  const planned = world!.rows.visits.filter((visit) => visit.state === 'planned' && visit.technicianId)
  const clashes = planned.filter((one) =>
    planned.some(
      (other) => other.id !== one.id && other.technicianId === one.technicianId && other.plannedStart < one.plannedEnd && one.plannedStart < other.plannedEnd,
    ),
  )
  expect(clashes.length).toBeGreaterThanOrEqual(2)
  const fresh = world!.rows.requests.filter((request) => request.state === 'new').map((request) => `${request.placeId} ${request.summary}`)
  expect(fresh.length - new Set(fresh).size).toBeGreaterThanOrEqual(1)
})

test.each(OTHERS)('made at %s, too, it has something for each login it prints: jobs to come, something to approve, something to post', (at) => {
  const now = new Date(at)
  const { rows } = others.get(at)!
  const account = rows.accounts.find((one) => one.email === 'fintan.rosewarne@skerry.example')!
  const technician = rows.technicians.find((one) => one.accountId === account.id)!
  const toCome = rows.visits.filter((visit) => visit.technicianId === technician.id && visit.state === 'planned' && visit.plannedStart >= now)
  expect(toCome.length).toBeGreaterThanOrEqual(2)
  expect(rows.orders.filter((order) => order.state === 'to_approve' && order.estimateMinor! <= 250_000).length).toBeGreaterThanOrEqual(1)
  expect(rows.orders.filter((order) => order.state === 'checked').length).toBeGreaterThanOrEqual(1)
})
