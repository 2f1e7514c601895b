import { listCandidates } from '#contract/dispatch'
import {
  addLeave,
  addRate,
  dropLeave,
  dropRate,
  dropShiftException,
  dropSkill,
  editCrew,
  readCrew,
  readVocabulary,
  saveAway,
  saveShiftException,
  saveSkill,
} from '#contract/people'
import { readPortraitTimeline } from '#contract/portraits'
import { dropContact, editReach, readReach, saveContact } from '#contract/vendors'
import { castAt, Client, House, orderAt } from '../kit'
import type { Cast, Running } from '../kit'

/** Technicians on their Portrait: what they can do, when they work, for how much; and that dispatch goes by it. */
let house: House
let server: Running
let cast: Cast
let bram: number

beforeAll(async () => {
  house = await House.open('crew')
  server = await house.start()
  cast = await castAt(server.url)
  bram = (await house.rows<{ id: number }>("SELECT id FROM person WHERE name = 'Bram Oyelaran'"))[0]!.id
})
afterAll(() => house?.close())

const crew = () => cast.coordinator.must(readCrew, { id: bram })
const candidate = async (orderId: number, start: string, end: string) =>
  (await cast.coordinator.must(listCandidates, { orderId, start, end })).technicians.find((one) => one.name === 'Bram Oyelaran')!.fitness

test('what is known of a technician, and of who is none', async () => {
  expect(await crew()).toMatchObject({ isTechnician: true, team: 'Electrical', whyNot: null, roles: [{ role: 'technician', site: 'SKE' }] })
  const [reporter] = await house.rows<{ id: number }>(
    'SELECT p.id FROM person p LEFT JOIN account a ON a.person_id = p.id WHERE a.id IS NULL AND p.site_id = 1 LIMIT 1',
  )
  expect(await cast.coordinator.must(readCrew, { id: reporter!.id })).toMatchObject({
    isTechnician: false,
    roles: [],
    teamId: null,
    whyNot: expect.stringContaining('no account'),
  })
  expect((await cast.coordinator.call(editCrew, { id: reporter!.id, version: 0, teamId: 1 })).problem.reasons![0]).toMatchObject({ code: 'no_account' })
  expect((await cast.coordinator.call(readCrew, { id: 999_999 })).status).toBe(404)
  expect((await cast.technician.call(readCrew, { id: bram })).status).toBe(403)
})

test('team, home, steps and trades are changed by version and told', async () => {
  const { version, trades } = await crew()
  const all = (await cast.coordinator.must(readVocabulary, {})).trades
  const other = all.find((trade) => !trades.some((one) => one.id === trade.id))!
  const [place] = await house.rows<{ id: number; code: string }>("SELECT id, code FROM place WHERE code LIKE 'SLI-%' LIMIT 1")
  const now = await cast.coordinator.must(editCrew, {
    id: bram,
    version,
    homePlaceId: place!.id,
    stepMinutes: 10,
    tradeIds: [...trades.map((one) => one.id), other.id],
  })
  expect(now).toMatchObject({ version: version + 1, stepMinutes: 10, home: expect.stringContaining(place!.code) })
  expect(now.trades.map((one) => one.id)).toContain(other.id)
  expect((await cast.coordinator.call(editCrew, { id: bram, version, stepMinutes: 20 })).status).toBe(409)
  expect((await cast.coordinator.call(editCrew, { id: bram, version: version + 1, tradeIds: [9_999] })).problem.reasons![0]!.field).toBe('tradeIds')
  const { entries } = await cast.coordinator.must(readPortraitTimeline, { register: 'people', id: bram })
  expect(entries.some((entry) => entry.kind === 'people.crew')).toBe(true)
})

test('a team makes a technician of who has an account, once, though two say it at the same time', async () => {
  const [tobias] = await house.rows<{ person_id: number }>("SELECT person_id FROM account WHERE email LIKE 'tobias.achterberg@%'")
  const [team] = await house.rows<{ id: number }>("SELECT id FROM team WHERE name = 'Fabric'")
  const id = tobias!.person_id
  const both = await Promise.all([1, 2].map(() => cast.coordinator.call(editCrew, { id, version: 0, teamId: team!.id })))
  expect(both.map((reply) => reply.status).sort()[0]).toBe(200)
  expect(both.every((reply) => reply.status === 200 || reply.status === 409)).toBe(true)
  expect(await cast.coordinator.must(readCrew, { id })).toMatchObject({ isTechnician: true, team: 'Fabric', day1: '08:00-16:30', day7: null, trades: [] })
})

test('the week is written as people write it, and dispatch goes by it and by days that are otherwise', async () => {
  const { id: order } = await orderAt(cast, 'ready')
  const before = await crew()
  const wrong = await cast.coordinator.call(editCrew, { id: bram, version: before.version, day2: '16-8', day3: 'noon' })
  expect(wrong.problem.reasons!.map((reason) => reason.field)).toEqual(['day2', 'day3'])
  const now = await cast.coordinator.must(editCrew, { id: bram, version: before.version, day2: '8-12, 13-16:30', day6: '' })
  expect([now.day2, now.day6]).toEqual(['08:00-12:00, 13:00-16:30', null])
  // Tuesday 24 November 2026, winter time: the clock of the site is that of UTC.
  expect((await candidate(order, '2026-11-24T09:00:00Z', '2026-11-24T10:00:00Z')).onShift).toBe(true)
  expect((await candidate(order, '2026-11-24T18:00:00Z', '2026-11-24T19:00:00Z')).onShift).toBe(false)
  const late = await cast.coordinator.must(saveShiftException, { id: bram, day: '2026-11-24', stretches: '12-20', reason: 'Shutdown in the evening' })
  expect(late.exceptions).toEqual([expect.objectContaining({ day: '2026-11-24', stretches: [{ from: '12:00', to: '20:00' }] })])
  expect((await candidate(order, '2026-11-24T09:00:00Z', '2026-11-24T10:00:00Z')).onShift).toBe(false)
  expect((await candidate(order, '2026-11-24T18:00:00Z', '2026-11-24T19:00:00Z')).onShift).toBe(true)
  await cast.coordinator.must(saveShiftException, { id: bram, day: '2026-11-24', stretches: '' })
  expect((await candidate(order, '2026-11-24T18:00:00Z', '2026-11-24T19:00:00Z')).onShift).toBe(false)
  await cast.coordinator.must(dropShiftException, { id: bram, itemId: late.exceptions[0]!.id })
  expect((await candidate(order, '2026-11-24T09:00:00Z', '2026-11-24T10:00:00Z')).onShift).toBe(true)
  expect((await cast.coordinator.call(saveShiftException, { id: bram, day: '2026-11-24', stretches: '20-12' })).problem.reasons![0]!.field).toBe('stretches')
})

test('leave lasts through its last day, not twice at once, and is taken back', async () => {
  const { id: order } = await orderAt(cast, 'ready')
  expect((await cast.coordinator.call(addLeave, { id: bram, from: '2026-12-04', until: '2026-12-01' })).problem.reasons![0]!.field).toBe('until')
  const { leaves } = await cast.coordinator.must(addLeave, { id: bram, from: '2026-12-01', until: '2026-12-03', reason: 'Training' })
  const leave = leaves.find((one) => one.from === '2026-12-01')!
  expect(leave).toMatchObject({ until: '2026-12-03', reason: 'Training', now: false })
  expect((await candidate(order, '2026-12-03T15:00:00Z', '2026-12-03T16:00:00Z')).away).toBe(true)
  expect((await candidate(order, '2026-12-04T09:00:00Z', '2026-12-04T10:00:00Z')).away).toBe(false)
  expect((await cast.coordinator.call(addLeave, { id: bram, from: '2026-12-03', until: '2026-12-09' })).problem.reasons![0]).toMatchObject({
    code: 'away_twice',
  })
  await cast.coordinator.must(dropLeave, { id: bram, itemId: leave.id })
  expect((await candidate(order, '2026-12-03T15:00:00Z', '2026-12-03T16:00:00Z')).away).toBe(false)
})

test('skills have a certificate and an end; said again, the new one stands', async () => {
  await cast.coordinator.must(saveSkill, { id: bram, name: 'High voltage', certificate: 'HV-3', validUntil: '2026-11-22' })
  expect((await crew()).skills.find((one) => one.name === 'High voltage')).toMatchObject({ certificate: 'HV-3', over: true })
  const { skills } = await cast.coordinator.must(saveSkill, { id: bram, name: 'High voltage', certificate: 'HV-4', validUntil: '2026-11-23' })
  const mine = skills.filter((one) => one.name === 'High voltage')
  expect(mine).toEqual([expect.objectContaining({ certificate: 'HV-4', over: false })])
  const left = await cast.coordinator.must(dropSkill, { id: bram, itemId: mine[0]!.id })
  expect(left.skills.some((one) => one.name === 'High voltage')).toBe(false)
})

test('rates hold from a day on, never before today; one in force stays', async () => {
  expect(
    (await cast.coordinator.call(addRate, { id: bram, from: '2026-11-22', normalPerHour: 5_000, overtimePerHour: 7_500 })).problem.reasons![0]!.field,
  ).toBe('from')
  const { rates } = await cast.coordinator.must(addRate, { id: bram, from: '2027-01-01', normalPerHour: 5_000, overtimePerHour: 7_500 })
  expect(rates![0]).toMatchObject({ from: '2027-01-01', normalPerHour: 5_000, future: true })
  expect((await cast.coordinator.call(dropRate, { id: bram, itemId: rates!.at(-1)!.id })).problem.reasons![0]!.code).toBe('in_force')
  expect((await cast.coordinator.must(dropRate, { id: bram, itemId: rates![0]!.id })).rates![0]!.future).toBe(false)
})

test('who stands in is said on both; another site sees nothing', async () => {
  const [maren, tobias] = await house.rows<{ id: number; person_id: number }>(
    "SELECT a.id, a.person_id FROM account a JOIN person p ON p.id = a.person_id WHERE p.name IN ('Maren Quill', 'Tobias Achterberg') ORDER BY p.name",
  )
  await cast.coordinator.must(saveAway, { deputyId: tobias!.id, fromAt: '2026-12-10T08:00:00.000Z', untilAt: '2026-12-12T17:00:00.000Z' })
  expect((await cast.coordinator.must(readCrew, { id: maren!.person_id })).deputies).toEqual([
    expect.objectContaining({ name: 'Tobias Achterberg', standsIn: false }),
  ])
  expect((await cast.coordinator.must(readCrew, { id: tobias!.person_id })).deputies).toEqual([
    expect.objectContaining({ name: 'Maren Quill', standsIn: true }),
  ])
  await house.rows(
    "UPDATE account_role SET site_id = (SELECT id FROM site WHERE code = 'MUS') WHERE account_id = (SELECT id FROM account WHERE email LIKE 'osric.vane@%')",
  )
  const elsewhere = await new Client(server.url).signIn('osric.vane')
  expect((await elsewhere.call(readCrew, { id: bram })).status).toBe(404)
  expect([403, 404]).toContain((await elsewhere.call(addLeave, { id: bram, from: '2026-12-20', until: '2026-12-21' })).status)
})

test('a vendor’s trades, sites and contacts: who comes to one site alone is offered there alone', async () => {
  const { id: order } = await orderAt(cast, 'ready')
  const [vendor] = await house.rows<{ id: number; name: string }>("SELECT id, name FROM vendor WHERE name = 'Halyard Lifts'")
  const { id, name } = vendor!
  const offered = async () =>
    (await cast.coordinator.must(listCandidates, { orderId: order, start: '2026-11-24T09:00:00Z', end: '2026-11-24T10:00:00Z' })).vendors.some(
      (one) => one.name === name,
    )
  const trade = (await cast.coordinator.must(readVocabulary, {})).trades[0]!
  await cast.coordinator.must(editReach, { id, tradeIds: [trade.id], siteIds: [] })
  expect(await offered()).toBe(true)
  const [mus] = await house.rows<{ id: number }>("SELECT id FROM site WHERE code = 'MUS'")
  expect((await cast.coordinator.must(editReach, { id, siteIds: [mus!.id] })).sites.map((site) => site.id)).toEqual([mus!.id])
  expect(await offered()).toBe(false)
  expect((await cast.coordinator.must(readReach, { id })).trades).toEqual([{ id: trade.id, name: trade.name }])
  expect((await cast.coordinator.call(editReach, { id, siteIds: [99] })).problem.reasons![0]!.field).toBe('siteIds')
  expect((await cast.coordinator.call(editReach, { id, tradeIds: [999] })).problem.reasons![0]!.field).toBe('tradeIds')
  await cast.coordinator.must(saveContact, { id, name: 'Ione Varley', role: 'Night desk', phone: '1' })
  const { contacts } = await cast.coordinator.must(saveContact, { id, name: 'Ione Varley', email: 'ione@halyard.example' })
  const ione = contacts.filter((one) => one.name === 'Ione Varley')
  expect(ione).toEqual([expect.objectContaining({ role: null, email: 'ione@halyard.example', phone: null })])
  expect((await cast.coordinator.call(saveContact, { id, name: 'X', email: 'nowhere' })).problem.reasons![0]!.field).toBe('email')
  expect((await cast.coordinator.must(dropContact, { id, itemId: ione[0]!.id })).contacts.some((one) => one.name === 'Ione Varley')).toBe(false)
  expect((await cast.clerk.call(saveContact, { id, name: 'X' })).status).toBe(403)
  const { entries } = await cast.coordinator.must(readPortraitTimeline, { register: 'vendors', id })
  expect(entries.filter((entry) => entry.kind === 'register.beside').length).toBeGreaterThan(3)
})
