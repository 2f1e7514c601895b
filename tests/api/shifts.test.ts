import ical from 'node-ical'
import type { VEvent } from 'node-ical'
import { readBoard, rearrange } from '#contract/board'
import { listCandidates } from '#contract/dispatch'
import { listFeeds, makeFeed, makeMyFeed, readMyFeed, revokeFeed, revokeMyFeed } from '#contract/feeds'
import { readCrew } from '#contract/people'
import {
  addSwap,
  askLeave,
  decideLeave,
  dropSwap,
  keepRota,
  listLeaveAsks,
  listOnCall,
  readMyTime,
  readRota,
  takeLeaveFile,
  withdrawLeave,
} from '#contract/shifts'
import { addVendor } from '#contract/vendors'
import { readOrder } from '#contract/orders'
import { castAt, Client, dispatched, House, orderAt, version } from '../kit'
import type { Cast, Running } from '../kit'

/** Leave that is asked for and agreed, read from calendars; who is on call; visits in calendar programs. */
let house: House
let server: Running
let cast: Cast
let bram: { id: number; technicianId: number; teamId: number }
beforeAll(async () => {
  house = await House.open('shifts', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
  const [row] = await house.rows<{ id: number; technicianId: number; teamId: number }>(
    "SELECT p.id, t.id AS technicianId, t.team_id AS teamId FROM technician t JOIN account a ON a.id = t.account_id JOIN person p ON p.id = a.person_id WHERE p.name = 'Bram Oyelaran'",
  )
  bram = row!
})
afterAll(() => house?.close())
const code = (reply: { problem: { reasons?: { code: string }[] } }) => reply.problem.reasons?.[0]?.code
/** What this test asked for: somebody of the demo world asks as well. */
const asked = async () => (await cast.coordinator.must(listLeaveAsks, { siteId: 1 })).rows.filter(({ personId }) => personId === bram.id)

test('leave is asked for, seen with what stands against it, agreed to, and told; it is on the Board then', async () => {
  const { visitId } = await orderAt(cast, 'dispatched')
  await cast.coordinator.must(rearrange, {
    siteId: 1,
    changes: [{ visitId, version: 1, start: '2026-11-26T09:00:00Z', end: '2026-11-26T10:00:00Z' }],
    despite: 'Thursday',
  })
  const mine = await cast.technician.must(askLeave, { from: '2026-11-26', until: '2026-11-27', reason: 'Moving house' })
  expect(mine.asks[0]).toMatchObject({ from: '2026-11-26', until: '2026-11-27', state: 'asked', reason: 'Moving house' })
  await cast.coordinator.hears((sentence) => sentence.includes('asks for leave from 2026-11-26 to 2026-11-27'))
  const [ask] = await asked()
  expect(ask).toMatchObject({ name: 'Bram Oyelaran', planned: 1, onCall: false })
  const { rows } = await cast.coordinator.must(decideLeave, { id: ask!.id, version: ask!.version, agree: true })
  expect(rows.filter(({ personId }) => personId === bram.id)).toEqual([])
  await house.mail('bram.oyelaran@skerry.example', ({ subject }) => subject.includes('was agreed to'))
  const after = await cast.technician.must(readMyTime, {})
  expect([after.asks[0]!.state, after.leaves.map(({ from, until }) => [from, until])]).toEqual([
    'agreed',
    [['2026-11-26T00:00:00.000Z', '2026-11-28T00:00:00.000Z']],
  ])
  const { people } = await cast.coordinator.must(readBoard, { siteId: 1, first: '2026-11-26' })
  expect(people.find(({ name }) => name === 'Bram Oyelaran')!.away).toHaveLength(1)
  // Over what is agreed nothing is asked for, and nothing is decided twice.
  expect(code(await cast.technician.call(askLeave, { from: '2026-11-27', until: '2026-11-30' }))).toBe('away_twice')
  expect((await cast.coordinator.call(decideLeave, { id: ask!.id, version: ask!.version, agree: false, note: 'No' })).status).toBe(409)
})

test('leave is refused with a reason, or not wanted any more; two who decide at once decide once', async () => {
  await cast.technician.must(askLeave, { from: '2026-12-07', until: '2026-12-08' })
  expect(code(await cast.technician.call(askLeave, { from: '2026-12-08', until: '2026-12-09' }))).toBe('asked_twice')
  const [ask] = await asked()
  expect(code(await cast.coordinator.call(decideLeave, { id: ask!.id, version: ask!.version, agree: false }))).toBe('reason_missing')
  const other = await new Client(server.url).signIn('tobias.achterberg')
  const both = await Promise.all(
    [cast.coordinator, other].map((who) => who.call(decideLeave, { id: ask!.id, version: ask!.version, agree: false, note: 'Audit week' })),
  )
  expect(both.map(({ status }) => status).sort()).toEqual([200, 409])
  await house.mail('bram.oyelaran@skerry.example', ({ text }) => text.includes('Audit week'))
  const again = await cast.technician.must(askLeave, { from: '2026-12-14', until: '2026-12-14' })
  const open = again.asks.find(({ state }) => state === 'asked')!
  const stranger = await new Client(server.url).signIn('fintan.rosewarne')
  expect((await stranger.call(withdrawLeave, { id: open.id, version: open.version })).status).toBe(404)
  await cast.technician.must(withdrawLeave, { id: open.id, version: open.version })
  expect(await asked()).toEqual([])
  expect((await cast.approver.call(listLeaveAsks, { siteId: 1 })).status).toBe(403)
  expect((await cast.coordinator.call(readMyTime, {})).status).toBe(403)
})

const calendar = (...days: [uid: string, from: string, until: string, says: string][]) =>
  new Blob([
    [
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      'PRODID:-//Test//EN',
      ...days.flatMap(([uid, from, until, says]) => [
        'BEGIN:VEVENT',
        `UID:${uid}`,
        'DTSTAMP:20261101T000000Z',
        `DTSTART;VALUE=DATE:${from}`,
        `DTEND;VALUE=DATE:${until}`,
        `SUMMARY:${says}`,
        'END:VEVENT',
      ]),
      'END:VCALENDAR',
    ].join('\r\n'),
  ])

test('a calendar of leave is looked at, taken, and read again: what moved moves, what is gone goes', async () => {
  const { id } = bram
  const first = calendar(
    ['a@hr', '20270104', '20270109', 'Skiing'],
    ['b@hr', '20270301', '20270302', 'Moving'],
    ['c@hr', '20261127', '20261128', 'Over what is agreed'],
  )
  const looked = await cast.coordinator.must(takeLeaveFile, { id, name: 'leave.ics' }, { file: first })
  expect([looked.added.map(({ says }) => says), looked.bad.map(({ says }) => says), looked.taken]).toEqual([
    ['Skiing', 'Moving'],
    ['Over what is agreed'],
    false,
  ])
  const before = (await cast.coordinator.must(readCrew, { id })).leaves.length
  await cast.coordinator.must(takeLeaveFile, { id, name: 'leave.ics', take: true }, { file: first })
  expect((await cast.coordinator.must(readCrew, { id })).leaves).toHaveLength(before + 2)
  expect(await cast.coordinator.must(takeLeaveFile, { id, take: true }, { file: first })).toMatchObject({ added: [], changed: [], gone: [], same: 2 })
  const second = calendar(['a@hr', '20270105', '20270110', 'Skiing later'])
  expect(await cast.coordinator.must(takeLeaveFile, { id, take: true }, { file: second })).toMatchObject({
    added: [],
    changed: [{ says: 'Skiing later', from: '2027-01-05T00:00:00.000Z' }],
    gone: [{ says: 'Moving' }],
  })
  for (const [wrong, why] of [
    [new Blob(['Dear all, I am away.']), 'no_calendar'],
    [new Blob([]), 'file_missing'],
  ] as const)
    expect(code(await cast.coordinator.call(takeLeaveFile, { id, take: true }, { file: wrong }))).toBe(why)
  expect((await cast.approver.call(takeLeaveFile, { id, take: true }, { file: second })).status).toBe(403)
})

test('who is on call is kept in turn, changed for a while, and counts where somebody is sent outside of their shift', async () => {
  const { teamId, technicianId } = bram
  const empty = await cast.coordinator.must(readRota, { teamId })
  expect([empty.version, empty.memberIds, empty.ahead]).toEqual([0, [], []])
  const others = empty.technicians.filter(({ id }) => id !== technicianId)
  const rota = { teamId, version: 0, memberIds: [technicianId, others[0]!.id], startDay: '2026-11-23', turnDays: 7, handover: '08:00' }
  const kept = await cast.coordinator.must(keepRota, rota)
  expect(kept.ahead.slice(0, 2).map(({ technicianId: id, until }) => [id, until])).toEqual([
    [technicianId, '2026-11-30T08:00:00.000Z'],
    [others[0]!.id, '2026-12-07T08:00:00.000Z'],
  ])
  // Agreed before: on leave on Thursday and Friday of that week.
  expect(kept.ahead[0]!.away).toBe(true)
  expect((await cast.coordinator.call(keepRota, rota)).status).toBe(409)
  expect(code(await cast.coordinator.call(keepRota, { ...rota, version: 1, memberIds: [99_999] }))).toBe('not_of_team')
  const { rows } = await cast.coordinator.must(listOnCall, { siteId: 1 })
  expect(rows.find((one) => one.teamId === teamId)).toMatchObject({ name: 'Bram Oyelaran', until: '2026-11-30T08:00:00.000Z', away: false })
  const night = { start: '2026-11-24T22:00:00.000Z', end: '2026-11-24T23:00:00.000Z' }
  const { id } = await orderAt(cast, 'ready')
  const { technicians } = await cast.coordinator.must(listCandidates, { orderId: id, ...night })
  expect(technicians.filter(({ onCall }) => onCall).map(({ name }) => name)).toEqual(['Bram Oyelaran', 'Caspian Dunmore', 'Rafferty Osei'])
  expect(technicians[0]!.name).toBe('Bram Oyelaran')
  const sentNow = (who: number, at: number) => ({ siteId: 1, adds: [{ orderId: id, version: at, technicianId: who, ...night }] })
  // For who is on call no reason is asked, for anybody else there is.
  expect(code(await cast.coordinator.call(rearrange, sentNow(others[0]!.id, await version(cast, id))))).toBe('shift')
  await cast.coordinator.must(rearrange, sentNow(technicianId, await version(cast, id)))
  const swapped = await cast.coordinator.must(addSwap, {
    teamId,
    technicianId: others[0]!.id,
    from: '2026-11-25T08:00:00Z',
    until: '2026-11-28T08:00:00Z',
    reason: 'He moves house',
  })
  expect(swapped.ahead.slice(0, 3).map(({ technicianId: who, swapped: standsIn, away }) => [who, standsIn, away])).toEqual([
    [technicianId, false, false],
    [others[0]!.id, true, false],
    [technicianId, false, false],
  ])
  const back = await cast.coordinator.must(dropSwap, { teamId, itemId: swapped.swaps[0]!.id })
  expect(back.swaps).toEqual([])
  expect((await cast.technician.must(readMyTime, {})).onCall.length).toBeGreaterThan(1)
  expect((await cast.approver.call(keepRota, { ...rota, version: 1 })).status).toBe(403)
})

const feed = async (address: string) => {
  const answer = await fetch(`${server.url}${new URL(address).pathname}`)
  const text = await answer.text()
  const events = answer.status === 200 ? Object.values(ical.sync.parseICS(text)).filter((one): one is VEvent => one?.type === 'VEVENT') : []
  return { status: answer.status, type: answer.headers.get('content-type'), text, events }
}

test('visits of a technician, a team, a vendor and a place are read by a calendar program from a secret address, until it is taken back', async () => {
  const { id, visitId } = await orderAt(cast, 'dispatched')
  const { number } = await cast.coordinator.must(readOrder, { id })
  const { id: vendorId } = await cast.coordinator.must(addVendor, { name: 'Feeding Ltd', email: 'feeding@vendor.example' })
  const other = await orderAt(cast, 'ready')
  await dispatched(cast, other.id, { vendorId })
  const theirs = await cast.coordinator.must(readOrder, { id: other.id })
  const of = (register: string, recordId: number) => cast.coordinator.must(makeFeed, { register: register as 'people', recordId, for: 'Wall calendar' })
  const has = async (register: string, recordId: number) => {
    const { rows } = await of(register, recordId)
    const read = await feed(rows.at(-1)!.address)
    expect([read.status, read.type]).toEqual([200, 'text/calendar; charset=utf-8'])
    return [number, theirs.number].map((one) => read.events.some(({ summary }) => String(summary).startsWith(one)))
  }
  expect(await has('people', bram.id)).toEqual([true, false])
  expect(await has('teams', bram.teamId)).toEqual([true, false])
  expect(await has('vendors', vendorId)).toEqual([false, true])
  // The place of both, and the whole site around it.
  expect(await has('places', 20)).toEqual([true, true])
  expect(await has('places', 1)).toEqual([true, true])
  const { rows } = await cast.coordinator.must(listFeeds, { register: 'people', recordId: bram.id })
  const read = await feed(rows[0]!.address)
  const event = read.events.find(({ summary }) => String(summary).startsWith(number))!
  expect([event.uid.startsWith(`visit-${visitId}@`), event.status, event.start.toISOString(), event.end!.toISOString()]).toEqual([
    true,
    'CONFIRMED',
    '2026-11-23T11:30:00.000Z',
    '2026-11-23T12:30:00.000Z',
  ])
  expect(read.text).not.toMatch(/\d+\.\d\d/)
  const tentative = await feed((await cast.coordinator.must(listFeeds, { register: 'vendors', recordId: vendorId })).rows[0]!.address)
  expect(tentative.events.map(({ status }) => status)).toEqual(['TENTATIVE'])
  // What is taken off is not in it any more, and neither is anything once it is taken back.
  await house.rows("UPDATE visit SET state = 'recalled' WHERE id = ?", [visitId])
  expect((await feed(rows[0]!.address)).events.some(({ summary }) => String(summary).startsWith(number))).toBe(false)
  await cast.coordinator.must(revokeFeed, { id: rows[0]!.id })
  expect((await feed(rows[0]!.address)).status).toBe(404)
  expect((await feed(`${server.url}/api/feed/${'C'.repeat(43)}/visits.ics`)).status).toBe(404)
})

test('a technician has a feed of their own, replaced and taken back; others make none, and of nobody who is sent nowhere', async () => {
  expect((await cast.technician.must(readMyFeed, {})).address).toBeNull()
  const { address: first } = await cast.technician.must(makeMyFeed, {})
  const { address: second } = await cast.technician.must(makeMyFeed, {})
  expect([(await feed(first!)).status, (await feed(second!)).status]).toEqual([404, 200])
  // Who does not work here any more reads nothing any more.
  await house.rows("UPDATE account SET disabled_at = '2026-11-23 10:00:00' WHERE person_id = ?", [bram.id])
  expect((await feed(second!)).status).toBe(404)
  await house.rows('UPDATE account SET disabled_at = NULL WHERE person_id = ?', [bram.id])
  await cast.technician.must(revokeMyFeed, {})
  expect((await feed(second!)).status).toBe(404)
  expect((await cast.technician.call(makeFeed, { register: 'people', recordId: bram.id, for: 'Me' })).status).toBe(403)
  const [maren] = await house.rows<{ id: number }>("SELECT id FROM person WHERE name = 'Maren Quill'")
  expect(code(await cast.coordinator.call(makeFeed, { register: 'people', recordId: maren!.id, for: 'Her' }))).toBe('no_feed')
  expect((await cast.coordinator.call(makeFeed, { register: 'teams', recordId: 99_999, for: 'Nobody' })).status).toBe(404)
})
