import { DateTime } from 'luxon'
import { dayFrom } from './register'
import { inOwnWords } from './phrases'
import { play, tellTwice } from './simulate'
import type { Case, Setting } from './simulate'
import { TROUBLES } from './troubles'
import type { Trouble } from './troubles'

const DAYS = 425
const REQUESTS_A_WORKDAY = 11.6
const PLANT_SHARES: [string, number][] = [
  ['5400', 5500],
  ['5100', 2500],
  ['5200', 1200],
  ['5300', 800],
]
/** What is younger than this is left to the live items, so that every state has its own reason. */
const QUIET_DAYS = 6

/** Fourteen months of cases in the order they were reported, with a believable rhythm. */
export function playHistory(setting: Setting): void {
  const cases = [...ordinaryCases(setting), ...repeatedCases(setting), ...preventiveCases(setting)]
  cases.sort((a, b) => a.receivedAt.getTime() - b.receivedAt.getTime())
  for (const one of cases) {
    const { orderId, requestId } = play(setting, one)
    if (one.twice && orderId && requestId && one.upTo === 'closed') tellTwice(setting, one, requestId)
    if (one.dueId && orderId) {
      const due = setting.world.rows.dues.find((row) => row.id === one.dueId)!
      Object.assign(due, { orderId, doneAt: setting.world.rows.orders.at(-1)!.finishedAt })
    }
  }
  closePeriods(setting)
}

type Planned = Case & { dueId?: number; twice?: boolean }

function ordinaryCases({ world, spaces, assets }: Setting): Planned[] {
  const { rng, now, calendar } = world
  const cases: Planned[] = []
  const today = DateTime.fromJSDate(now, { zone: calendar.zone }).startOf('day')
  for (let back = DAYS; back > QUIET_DAYS; back--) {
    const day = today.minus({ days: back })
    const working = calendar.week[day.weekday - 1]!.length > 0 && !calendar.holidays.includes(day.toISODate()!)
    const storm = [11, 12, 1, 2].includes(day.month) && rng.chance(0.05)
    const rhythm = working ? REQUESTS_A_WORKDAY * (day.weekday === 1 ? 1.6 : 1) : 2
    const count = Math.round(rhythm * (0.7 + rng.next() * 0.6)) + (storm ? 8 : 0)
    for (let n = 0; n < count; n++) {
      const trouble = storm && n >= count - 8 ? TROUBLES.find((one) => one.summary.startsWith('Ceiling leaks'))! : pickTrouble(rng, day.month)
      const where = spaces.filter((space) => trouble.where.test(space.kind))
      const space = rng.pick(where)
      const receivedAt = day
        .plus({
          minutes: rng.weighted([
            [rng.int(480, 600), 5],
            [rng.int(600, 1020), 6],
            [rng.int(360, 1320), 1],
          ]),
        })
        .toJSDate()
      const asset = trouble.asset ? (assets.find((one) => one.spaceId === space.id && one.kind === trouble.asset) ?? null) : null
      const fate = rng.next()
      const shared = space.building === 'PUM' ? { shares: PLANT_SHARES } : {}
      const said = { words: inOwnWords(world.words, trouble.summary, trouble.description), corrected: world.words.chance(0.55) }
      const twice = world.words.chance(0.06)
      cases.push({ trouble, space, asset, receivedAt, ...said, twice, upTo: fate < 0.2 ? 'declined' : fate < 0.23 ? 'cancelled' : 'closed', ...shared })
    }
  }
  return cases
}

function pickTrouble(rng: Setting['world']['rng'], month: number): Trouble {
  return rng.weighted(TROUBLES.map((trouble) => [trouble, trouble.weight * (trouble.season ? (trouble.season.includes(month) ? 2.5 : 0.3) : 1)] as const))
}

/** Failures worth noticing: a chiller compressor, the lift door, one freezer under a warranty that ends soon. */
function repeatedCases(setting: Setting): Planned[] {
  const { world, spaces, assets } = setting
  const at = (days: number) => new Date(world.now.getTime() - days * 86_400_000)
  const repeat = (tag: string, summary: string, days: number[], change: Partial<Trouble>): Planned[] => {
    const asset = assets.find((one) => one.tag === tag)!
    const space = spaces.find((one) => one.id === asset.spaceId)!
    const base = TROUBLES.find((one) => one.summary === summary)!
    return days.map((back) => ({
      trouble: { ...base, ...change },
      space,
      asset,
      receivedAt: at(back),
      upTo: 'closed' as const,
      ...(space.building === 'PUM' ? { shares: PLANT_SHARES } : {}),
    }))
  }
  return [
    ...repeat('CH-1-CA', 'Seawater flow is low', [210, 150, 84, 61, 33, 12], {
      summary: 'Chiller 1 trips on high pressure',
      description: 'Compressor A trips after about forty minutes. Reset holds for an hour.',
      trade: 'hvac',
      category: 'heat',
      symptom: 'Alarm',
      cause: 'Failed part',
      fix: 'Reset',
      vendor: 'Northbay Cooling',
    }),
    ...repeat('LIFT-1', 'Lift door opens and closes again', [160, 88, 47, 19], {}),
    ...repeat('F-003', 'Freezer alarm, −61 and rising', [120, 80, 52, 27, 9], {}),
  ]
}

/** Preventive plans, their dues, and the orders that answered them. */
function preventiveCases(setting: Setting): Planned[] {
  const { world, spaces, assets } = setting
  const cases: Planned[] = []
  const plans: [prefix: RegExp, name: string, trade: string, everyDays: number, most: number][] = [
    [/^CH-\d$/, 'Chiller service', 'hvac', 90, 2],
    [/^SP-/, 'Seawater pump check', 'life_support', 60, 6],
    [/^F-0/, 'Freezer coil cleaning', 'hvac', 120, 12],
    [/^FD-/, 'Fire door inspection', 'locks', 180, 6],
    [/^GEN-1$/, 'Generator test run', 'electrical', 30, 1],
    [/^LIFT-1$/, 'Lift inspection', 'lifts', 180, 1],
    [/^AIR-1$/, 'Breathing-air test', 'boats', 90, 1],
    [/^FH-0/, 'Fume cupboard test', 'hvac', 365, 6],
    [/^SF-/, 'Sand filter backwash check', 'life_support', 60, 6],
  ]
  for (const [prefix, name, trade, everyDays, most] of plans)
    for (const asset of assets.filter((one) => prefix.test(one.tag)).slice(0, most)) {
      const offset = world.rng.int(0, everyDays - 1)
      const plan = world.add('preventivePlans', {
        siteId: 1,
        name,
        assetId: asset.id,
        placeId: asset.spaceId,
        tradeId: world.rows.trades.find((one) => one.code === trade)!.id!,
        rule: `FREQ=DAILY;INTERVAL=${everyDays}`,
        leadDays: 7,
        startsOn: dayFrom(world.now, -DAYS - offset),
      })
      for (let day = -DAYS - offset; day <= 60; day += everyDays) {
        if (day < -DAYS) continue
        const due = world.add('dues', { planId: plan.id, dueOn: dayFrom(world.now, day) })
        if (day > -QUIET_DAYS - 8) continue
        const trouble: Trouble = {
          ...TROUBLES[0]!,
          summary: `${name}, ${asset.tag}`,
          description: `${name} by the book, with readings.`,
          trade,
          symptom: 'Worn',
          cause: 'Wear',
          fix: 'Adjusted',
          parts: undefined,
          category: asset.category,
          minutes: [30, 90],
        }
        const vendor = trade === 'lifts' ? { vendor: 'Halyard Lifts' } : {}
        const space = spaces.find((one) => one.id === asset.spaceId)!
        cases.push({
          trouble: { ...trouble, ...vendor },
          space,
          asset,
          kind: 'preventive',
          receivedAt: new Date(world.now.getTime() + (day - 7) * 86_400_000),
          upTo: 'closed',
          dueId: due.id,
          ...(space.building === 'PUM' ? { shares: PLANT_SHARES } : {}),
        })
      }
    }
  return cases
}

/** Every month but this and the last is closed for good. */
function closePeriods({ world, staff }: Setting): void {
  const current = world.now.toISOString().slice(0, 7)
  const past = world.rows.periods.filter((period) => period.month < current).sort((a, b) => (a.month < b.month ? 1 : -1))
  const open = past[0]?.month
  for (const period of past)
    if (period.month !== open) Object.assign(period, { closedAt: new Date(`${nextMonth(period.month)}-04T10:00:00Z`), closedBy: staff.get('Petra Lindqvist')! })
}

const nextMonth = (month: string) => DateTime.fromFormat(month, 'yyyy-LL').plus({ months: 1 }).toFormat('yyyy-LL')
