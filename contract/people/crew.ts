import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import type { DayStretch } from '#core/kit'
import type { Role } from '#core/people'

/** Somebody at work: their roles, who stands in for them, and what they are sent out as. */
export interface CrewSheet {
  /** The person's. */
  id: number
  version: number
  /** Why it cannot be changed by who asks; null when it can. */
  whyNot: string | null
  roles: { role: Role; site: string | null }[]
  /** Who decides for them, and for whom they decide, now or later. */
  deputies: { name: string; standsIn: boolean; fromAt: Instant; untilAt: Instant }[]
  isTechnician: boolean
  teamId: number | null
  team: string | null
  homePlaceId: number | null
  home: string | null
  /** Work is charged in steps of so many minutes, a call-out for so many at least. */
  stepMinutes: number | null
  callOutMinutes: number | null
  trades: { id: number; name: string }[]
  /** The week, Monday first, each day as it is written: "08:00-16:30". */
  day1: string | null
  day2: string | null
  day3: string | null
  day4: string | null
  day5: string | null
  day6: string | null
  day7: string | null
  skills: { id: number; name: string; certificate: string | null; validUntil: string | null; over: boolean }[]
  exceptions: { id: number; day: string; stretches: DayStretch[]; reason: string | null }[]
  leaves: { id: number; from: string; until: string; reason: string | null; now: boolean }[]
  /** Only for those who see costs. */
  rates: { id: number; from: string; normalPerHour: number; overtimePerHour: number; future: boolean }[] | null
}

export interface CrewEdit {
  id: number
  version: number
  teamId?: number
  homePlaceId?: number | null
  stepMinutes?: number
  callOutMinutes?: number
  tradeIds?: number[]
  day1?: string
  day2?: string
  day3?: string
  day4?: string
  day5?: string
  day6?: string
  day7?: string
}

const byPerson = { id: field.id().required() }
const item = { ...byPerson, itemId: field.id().required() }
interface Item {
  id: number
  itemId: number
}
const path = '/api/registers/people/:id/crew'
const may = 'registers.edit' as const

export const readCrew = endpoint<{ id: number }, CrewSheet>({
  method: 'GET',
  path,
  says: 'Roles and deputies of a person; of a technician trades, skills, shift, leave, and for who sees costs their rates.',
  may: 'desk.read',
  input: Joi.object<{ id: number }, true>(byPerson),
})

const day = () => Joi.string().allow('', null).max(80)
export const editCrew = endpoint<CrewEdit, CrewSheet>({
  method: 'PATCH',
  path,
  says: 'Change what somebody is sent out as; a team makes a technician of who has an account.',
  may,
  input: Joi.object<CrewEdit, true>({
    ...byPerson,
    version: Joi.number().integer().min(0).required(),
    teamId: field.id(),
    homePlaceId: field.id().allow(null),
    stepMinutes: Joi.number().integer().min(1).max(120),
    callOutMinutes: Joi.number().integer().min(0).max(480),
    tradeIds: Joi.array().items(field.id()).max(20).unique(),
    day1: day(),
    day2: day(),
    day3: day(),
    day4: day(),
    day5: day(),
    day6: day(),
    day7: day(),
  }),
})

export interface NewSkill {
  id: number
  name: string
  certificate?: string
  validUntil?: string
}
export const saveSkill = endpoint<NewSkill, CrewSheet>({
  method: 'POST',
  path: `${path}/skills`,
  says: 'Say what a technician can do, with certificate and its end; said again, it takes the place of what was said.',
  may,
  input: Joi.object<NewSkill, true>({
    ...byPerson,
    name: field.line(80).required(),
    certificate: field.line(60).allow(''),
    validUntil: field.day().allow(''),
  }),
})
export const dropSkill = endpoint<Item, CrewSheet>({
  method: 'DELETE',
  path: `${path}/skills/:itemId`,
  says: 'A technician does this no longer.',
  may,
  input: Joi.object<Item, true>(item),
})

export interface NewRate {
  id: number
  from: string
  normalPerHour: number
  overtimePerHour: number
}
export const addRate = endpoint<NewRate, CrewSheet>({
  method: 'POST',
  path: `${path}/rates`,
  says: 'What an hour costs from a day on; work before that day stays as it was charged.',
  may,
  input: Joi.object<NewRate, true>({
    ...byPerson,
    from: field.day().required(),
    normalPerHour: field.minor().required(),
    overtimePerHour: field.minor().required(),
  }),
})
export const dropRate = endpoint<Item, CrewSheet>({
  method: 'DELETE',
  path: `${path}/rates/:itemId`,
  says: 'Take a rate back that is not in force yet.',
  may,
  input: Joi.object<Item, true>(item),
})

export interface NewLeave {
  id: number
  from: string
  until: string
  reason?: string
}
export const addLeave = endpoint<NewLeave, CrewSheet>({
  method: 'POST',
  path: `${path}/leaves`,
  says: 'A technician is on leave, through the last day.',
  may,
  input: Joi.object<NewLeave, true>({ ...byPerson, from: field.day().required(), until: field.day().required(), reason: field.line(120).allow('') }),
})
export const dropLeave = endpoint<Item, CrewSheet>({
  method: 'DELETE',
  path: `${path}/leaves/:itemId`,
  says: 'They are not on leave then after all.',
  may,
  input: Joi.object<Item, true>(item),
})

export interface NewException {
  id: number
  day: string
  /** "12:00-20:00"; nothing for a day off. */
  stretches: string
  reason?: string
}
export const saveShiftException = endpoint<NewException, CrewSheet>({
  method: 'POST',
  path: `${path}/exceptions`,
  says: 'A technician works otherwise on one day.',
  may,
  input: Joi.object<NewException, true>({
    ...byPerson,
    day: field.day().required(),
    stretches: Joi.string().allow('').max(80).required(),
    reason: field.line(120).allow(''),
  }),
})
export const dropShiftException = endpoint<Item, CrewSheet>({
  method: 'DELETE',
  path: `${path}/exceptions/:itemId`,
  says: 'That day is as their week says.',
  may,
  input: Joi.object<Item, true>(item),
})
