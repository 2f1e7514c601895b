import { addWorkingTime } from '#core/kit'
import type { HoldReason } from '#core/orders'
import { play } from './simulate'
import type { Case, Setting } from './simulate'
import { TROUBLES } from './troubles'

const HOURS = 3_600_000

/** Forty-odd items spread over every stage: fresh, late, blocked. Hours back from now. */
const LIVE: [summary: string, hoursBack: number, upTo: Case['upTo'], hold?: HoldReason][] = [
  ['Freezer alarm, −61 and rising', 0.2, 'new'],
  ['Tap drips', 0.4, 'new'],
  ['Room does not get warm', 0.6, 'new'],
  ['Socket by the desk is dead', 1.1, 'new'],
  ['Toilet keeps running', 2.2, 'new'],
  ['Shelf is coming off the wall', 20, 'new'],
  ['Drain is blocked', 0.9, 'taken_up'],
  ['Ceiling light flickers', 2.5, 'taken_up'],
  ['Bollard was driven into', 22, 'taken_up'],
  ['Smoke detector beeps', 3, 'asked'],
  ['Outboard does not start', 26, 'asked'],
  ['Lift door opens and closes again', 4, 'draft'],
  ['Paint is peeling after the leak', 28, 'draft'],
  ['Door does not lock', 5, 'draft'],
  ['Mouse droppings behind the cupboard', 30, 'draft'],
  ['Tank pump is noisy', 6, 'to_approve'],
  ['Ceiling leaks when it rains', 27, 'to_approve'],
  ['Fume cupboard alarm sounds', 7, 'to_approve'],
  ['Seawater flow is low', 5.5, 'to_approve'],
  ['Shower has no pressure', 24, 'ready'],
  ['Ceiling light flickers', 50, 'ready'],
  ['Fire door does not close by itself', 48, 'ready'],
  ['Cold room is at 9 degrees', 8, 'ready'],
  ['Tap drips', 75, 'ready'],
  ['Room does not get warm', 30, 'dispatched'],
  ['Socket by the desk is dead', 52, 'dispatched'],
  ['Toilet keeps running', 49, 'dispatched'],
  ['Drain is blocked', 29, 'dispatched'],
  ['Smoke detector beeps', 72, 'dispatched'],
  ['Shelf is coming off the wall', 96, 'dispatched'],
  ['Door does not lock', 28, 'dispatched'],
  ['Ceiling light flickers', 51, 'dispatched'],
  ['Fume cupboard alarm sounds', 27, 'on_job'],
  ['Shower has no pressure', 31, 'on_job'],
  ['Tank pump is noisy', 54, 'on_job'],
  ['Tank pump is noisy', 120, 'on_hold', 'part'],
  ['Door does not lock', 100, 'on_hold', 'access'],
  ['Drain is blocked', 98, 'on_hold', 'vendor'],
  ['Paint is peeling after the leak', 140, 'on_hold', 'weather'],
  ['Tap drips', 120, 'done'],
  ['Toilet keeps running', 123, 'done'],
  ['Drain is blocked', 126, 'done'],
  ['Room does not get warm', 121, 'done'],
  ['Ceiling light flickers', 128, 'checked'],
  ['Drain is blocked', 140, 'checked'],
  ['Seawater flow is low', 143, 'checked'],
]

/** What is on the desk right now. Reported in working hours, so that nothing has waited all night unseen. */
export function playLive(setting: Setting): void {
  const { world, spaces, assets } = setting
  const { rng, now } = world
  const busy = new Set<number>()
  const cases = LIVE.map(([summary, hoursBack, upTo, holdReason]): Case => {
    const trouble = { ...TROUBLES.find((one) => one.summary === summary)! }
    const space = rng.pick(spaces.filter((one) => trouble.where.test(one.kind) && one.building !== 'HAT'))
    const asset = trouble.asset ? (assets.find((one) => one.spaceId === space.id && one.kind === trouble.asset) ?? null) : null
    const shares: Case['shares'] =
      space.building === 'PUM'
        ? [
            ['5400', 5500],
            ['5100', 2500],
            ['5200', 1200],
            ['5300', 800],
          ]
        : undefined
    return {
      trouble,
      space,
      asset,
      receivedAt: new Date(now.getTime() - hoursBack * HOURS),
      upTo,
      holdReason,
      shares,
      wish: summary.startsWith('Freezer') ? 'Now, please ring me' : undefined,
    }
  })
  cases.push(...planConflict(setting), ...sameTwice(setting))
  cases.sort((a, b) => a.receivedAt.getTime() - b.receivedAt.getTime())
  for (const one of cases) {
    if (one.upTo === 'on_job') freeTechnician(setting, one, busy)
    play(setting, one)
  }
  settleInPast(setting)
}

/** Two jobs promised to one person for the same hour: somebody has to decide which. */
function planConflict({ world, spaces, crew }: Setting): Case[] {
  const plannedStart = addWorkingTime(world.now, 150, world.calendar)
  const technicianId = crew.find((person) => person.trades.includes('plumbing'))!.technicianId
  return (['Tap drips', 'Shower has no pressure'] as const).map((summary, index) => {
    const trouble = { ...TROUBLES.find((one) => one.summary === summary)! }
    const space = spaces.filter((one) => trouble.where.test(one.kind) && one.building === 'GAN')[index * 7]!
    return { trouble, space, asset: null, receivedAt: new Date(world.now.getTime() - (25 + index) * HOURS), upTo: 'dispatched', technicianId, plannedStart }
  })
}

/** The same thing told twice from the same room: one joins the other. */
function sameTwice({ world, spaces }: Setting): Case[] {
  const trouble = { ...TROUBLES.find((one) => one.summary === 'Drain is blocked')! }
  const space = spaces.find((one) => trouble.where.test(one.kind) && one.building === 'LAN')!
  return [0.5, 1.5].map((hours) => ({ trouble, space, asset: null, receivedAt: new Date(world.now.getTime() - hours * HOURS), upTo: 'new' }))
}

/** Nobody is on two jobs at once: a trade whose people are all out passes the job to general hands. */
function freeTechnician({ crew }: Setting, one: Case, busy: Set<number>): void {
  const free = crew.filter((person) => person.trades.includes(one.trouble.trade) && !busy.has(person.technicianId))
  const chosen = free[0] ?? crew.find((person) => !busy.has(person.technicianId))!
  busy.add(chosen.technicianId)
  one.technicianId = chosen.technicianId
}

/** Nothing has happened in the future: what the dice put after now is pulled back to just before it. */
function settleInPast({ world }: Setting): void {
  const latest = new Date(world.now.getTime() - 60_000)
  const pull = <Row extends object>(rows: Row[], ...fields: (keyof Row)[]) => {
    for (const row of rows)
      for (const field of fields) if (row[field] instanceof Date && (row[field] as Date) > latest) row[field] = latest as Row[typeof field]
  }
  pull(world.rows.events, 'at')
  pull(world.rows.requests, 'takenUpAt', 'decidedAt')
  pull(world.rows.orders, 'createdAt', 'respondedAt', 'finishedAt', 'closedAt', 'clockStoppedAt')
  pull(world.rows.approvals, 'askedAt', 'decidedAt')
  pull(world.rows.visits, 'startedAt', 'endedAt')
  pull(world.rows.stints, 'startAt', 'endAt')
}
