import { hash } from '@node-rs/argon2'
import { DateTime } from 'luxon'
import type { WorkCalendar } from '#core/kit'
import { makeAccess } from './access'
import { makeShifts } from './shifts'
import { makeBookings, makeReadiness } from './bookings'
import { makeBuying } from './buying'
import { makeTalk } from './talk'
import { makeVans } from './vans'
import { makeDocuments } from './documents'
import { makeFindings } from './findings'
import { makeFloorplans } from './floorplans'
import { playHistory } from './history'
import { makeIntake } from './intake'
import { playLive } from './live'
import { makePeople } from './people'
import { makePlaces } from './places'
import { makeAssets, makeCategories, makePayers, makeRules, makeStock, makeVendors } from './register'
import { makeMeters } from './meters'
import { makeMethods } from './methods'
import { makeOwnFields } from './own'
import { makeOwnStates } from './ownStates'
import { makeRegisters } from './registers'
import { Rng } from './rng'
import { makeTemplates } from './templates'
import { makeViews } from './views'
import { makeRuleBook, tellTargets } from './rules'
import type { Setting } from './simulate'
import { World } from './world'

/** The password of everybody in the demo world. It opens made-up data only. */
export const DEMO_PASSWORD = 'slack-tide-42'
/** Whom the sign-in page offers: one of each job. */
const DEMO_LOGINS = ['maren.quill', 'ines.ferrall', 'osric.vane', 'petra.lindqvist', 'yusuf.adeyemi-rourke', 'wendeline.stroud', 'fintan.rosewarne'].map(
  (name) => `${name}@skerry.example`,
)

/** The whole demo world, from a seed and a moment: the same two give the same world. */
export async function makeWorld(seed: number, now: Date): Promise<World> {
  const passwordHash = await hash(DEMO_PASSWORD, { salt: Buffer.from('the demo world s') })
  const world = new World(new Rng(seed), new Rng(seed + 1), now, calendarAround(now), passwordHash)
  makePayers(world)
  const { spaces, siteIds } = makePlaces(world)
  const { crew, staff } = makePeople(world, siteIds.SKE, spaces)
  makeVendors(world)
  makeCategories(world)
  makeRules(world, Object.values(siteIds))
  const assets = makeAssets(world, spaces)
  makeStock(world, siteIds.SKE, spaces)
  const setting: Setting = { world, spaces, assets, crew, staff, numbers: { request: 20_001, order: 28_001, bill: 7_001, purchase: 1_001 } }
  playHistory(setting)
  playLive(setting)
  makeIntake(setting)
  makeRegisters(setting)
  makeFloorplans(world, spaces)
  await makeDocuments(world)
  makeOwnFields(world)
  makeOwnStates(world)
  makeMethods(world)
  makeTemplates(world)
  makeFindings(setting)
  makeMeters(setting)
  makeBuying(setting)
  makeVans(setting)
  makeTalk(setting)
  makeBookings(setting)
  makeReadiness(setting)
  makeAccess(setting)
  makeShifts(setting)
  makeRuleBook(world, siteIds.SKE)
  makeViews(world)
  tellTargets(world)
  for (const siteId of Object.values(siteIds)) {
    const prefix = siteId === siteIds.SKE ? '' : 'M'
    world.put('numberings', { siteId, series: 'request', prefix: `${prefix}R`, next: setting.numbers.request })
    world.put('numberings', { siteId, series: 'order', prefix: `${prefix}W`, next: setting.numbers.order })
    world.put('numberings', { siteId, series: 'asset', prefix: `${prefix}A`, next: 1 })
    world.put('numberings', { siteId, series: 'purchase', prefix: `${prefix}P`, next: setting.numbers.purchase })
  }
  inOrder(world)
  return world
}

/** Events get their place in the order everybody reads them in, by time. */
function inOrder(world: World): void {
  world.rows.events.sort((a, b) => a.at.getTime() - b.at.getTime() || a.id! - b.id!)
  world.rows.events.forEach((event, index) => Object.assign(event, { id: index + 1, seq: index + 1 }))
  world.put('settings', { name: 'demo_world', value: { password: DEMO_PASSWORD, emails: DEMO_LOGINS } })
  world.put('settings', { name: 'event_sequence', value: world.rows.events.length })
}

/** Monday to Friday, 08:00 to 17:30, with Irish public holidays (from memory) of the years around now. */
function calendarAround(now: Date): WorkCalendar {
  const years = [-2, -1, 0, 1, 2].map((offset) => now.getUTCFullYear() + offset)
  return {
    zone: 'Europe/Dublin',
    week: Array.from({ length: 7 }, (_, day) => (day < 5 ? [{ from: '08:00', to: '17:30' }] : [])),
    holidays: years.flatMap(irishHolidays).sort(),
  }
}

/** Public holidays in Ireland; checked against a holiday package in the test beside this file. */
export function irishHolidays(year: number): string[] {
  const day = (month: number, date: number) => DateTime.utc(year, month, date)
  const monday = (from: DateTime) => from.plus({ days: (8 - from.weekday) % 7 })
  const lastMonday = (month: number) => monday(day(month, 1).endOf('month').startOf('day').minus({ days: 6 }))
  const brigid = day(2, 1).weekday === 5 ? day(2, 1) : monday(day(2, 1))
  return [
    day(1, 1),
    brigid,
    day(3, 17),
    easter(year).plus({ days: 1 }),
    monday(day(5, 1)),
    monday(day(6, 1)),
    monday(day(8, 1)),
    lastMonday(10),
    day(12, 25),
    day(12, 26),
  ].map((one) => one.toISODate()!)
}

/** Easter Sunday by the anonymous Gregorian algorithm (Meeus, Astronomical Algorithms, chapter 8; from memory). */
function easter(year: number): DateTime {
  const a = year % 19
  const b = Math.floor(year / 100)
  const c = year % 100
  const h = (19 * a + b - Math.floor(b / 4) - Math.floor((b - Math.floor((b + 8) / 25) + 1) / 3) + 15) % 30
  const l = (32 + 2 * (b % 4) + 2 * Math.floor(c / 4) - h - (c % 4)) % 7
  const m = Math.floor((a + 11 * h + 22 * l) / 451)
  const sum = h + l - 7 * m + 114
  return DateTime.utc(year, Math.floor(sum / 31), (sum % 31) + 1)
}
