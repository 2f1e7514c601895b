import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import type { LeaveAskState } from '#core/shifts'

export interface MyLeaveAsk {
  id: number
  version: number
  /** Days, both included. */
  from: string
  until: string
  reason: string | null
  state: LeaveAskState
  askedAt: Instant
  decidedBy: string | null
  answer: string | null
}
export interface OnCallSpan {
  from: Instant
  until: Instant
}
/** A technician’s own time: their week, when they are away or have asked to be, when they are on call. */
export interface MyTime {
  /** Monday first, as they are written: "08:00-16:30". */
  week: string[]
  otherwise: { day: string; stretches: string; reason: string | null }[]
  leaves: { from: Instant; until: Instant; reason: string | null }[]
  asks: MyLeaveAsk[]
  onCall: (OnCallSpan & { team: string })[]
}

export const readMyTime = endpoint<object, MyTime>({
  method: 'GET',
  path: '/api/my-time',
  says: 'My week, my leave, what I have asked for, and when I am on call.',
  may: 'field.work',
})
interface Ask {
  from: string
  until: string
  reason?: string
}
export const askLeave = endpoint<Ask, MyTime>({
  method: 'POST',
  path: '/api/my-leave',
  says: 'Ask for leave, through the last day.',
  may: 'field.work',
  input: Joi.object<Ask, true>({ from: field.day().required(), until: field.day().required(), reason: field.line(120).allow('') }),
})
interface Of {
  id: number
  version: number
}
const of = { id: field.id().required(), version: field.version().required() }
export const withdrawLeave = endpoint<Of, MyTime>({
  method: 'POST',
  path: '/api/my-leave/:id/withdraw',
  says: 'I do not want the leave any more that I asked for.',
  may: 'field.work',
  input: Joi.object<Of, true>(of),
})

/** Leave somebody asks for, with what stands against it. */
export interface LeaveAsk {
  id: number
  version: number
  technicianId: number
  personId: number
  name: string
  team: string
  from: string
  until: string
  reason: string | null
  askedAt: Instant
  /** How many visits they are planned for then, and who of the team is away as well. */
  planned: number
  alsoAway: string[]
  onCall: boolean
}
export const listLeaveAsks = endpoint<{ siteId: number }, { rows: LeaveAsk[] }>({
  method: 'GET',
  path: '/api/sites/:siteId/leave-asks',
  says: 'Leave that is asked for and not decided.',
  may: 'registers.edit',
  input: Joi.object<{ siteId: number }, true>({ siteId: field.id().required() }),
})
interface Decision extends Of {
  agree: boolean
  note?: string
}
export const decideLeave = endpoint<Decision, { rows: LeaveAsk[] }>({
  method: 'POST',
  path: '/api/leave-asks/:id/decide',
  says: 'Agree to leave or refuse it; who asked is told.',
  may: 'registers.edit',
  input: Joi.object<Decision, true>({ ...of, agree: Joi.boolean().required(), note: field.line(300).allow('') }),
})

export interface LeaveFileLine extends OnCallSpan {
  says: string
}
export interface LeaveFile {
  added: LeaveFileLine[]
  changed: LeaveFileLine[]
  gone: LeaveFileLine[]
  same: number
  bad: (LeaveFileLine & { sentence: string })[]
  taken: boolean
}
interface TakeLeave {
  id: number
  name?: string
  take?: boolean
}
export const takeLeaveFile = endpoint<TakeLeave, LeaveFile>({
  method: 'POST',
  path: '/api/registers/people/:id/crew/leave-calendar',
  says: 'Hold a calendar (iCalendar) of somebody’s leave against what is noted; with "take", note it.',
  may: 'registers.edit',
  upload: true,
  input: Joi.object<TakeLeave, true>({ id: field.id().required(), name: Joi.string().max(200), take: Joi.boolean() }),
})

/** Who of a team is on call, in turn. */
export interface RotaSheet {
  teamId: number
  /** 0 while there is none. */
  version: number
  whyNot: string | null
  technicians: { id: number; name: string }[]
  memberIds: number[]
  startDay: string
  turnDays: number
  handover: string
  swaps: (OnCallSpan & { id: number; technicianId: number; name: string; reason: string | null })[]
  /** The next weeks, with where somebody is on leave during their turn. */
  ahead: (OnCallSpan & { technicianId: number; name: string; swapped: boolean; away: boolean })[]
}
const ofTeam = { teamId: field.id().required() }
const rotaPath = '/api/teams/:teamId/rota'
export const readRota = endpoint<{ teamId: number }, RotaSheet>({
  method: 'GET',
  path: rotaPath,
  says: 'Who of a team is on call, in turn, and in the next weeks.',
  may: 'desk.read',
  input: Joi.object<{ teamId: number }, true>(ofTeam),
})
interface KeepRota {
  teamId: number
  version: number
  memberIds: number[]
  startDay: string
  turnDays: number
  handover: string
}
export const keepRota = endpoint<KeepRota, RotaSheet>({
  method: 'PATCH',
  path: rotaPath,
  says: 'Say who of a team is on call, in turn; with nobody, none is.',
  may: 'registers.edit',
  input: Joi.object<KeepRota, true>({
    ...ofTeam,
    version: Joi.number().integer().min(0).required(),
    memberIds: Joi.array().items(field.id()).required(),
    startDay: field.day().required(),
    turnDays: Joi.number().integer().required(),
    handover: Joi.string().max(5).required(),
  }),
})
interface AddSwap {
  teamId: number
  technicianId: number
  from: string
  until: string
  reason?: string
}
export const addSwap = endpoint<AddSwap, RotaSheet>({
  method: 'POST',
  path: `${rotaPath}/swaps`,
  says: 'Somebody else is on call for a while.',
  may: 'registers.edit',
  input: Joi.object<AddSwap, true>({
    ...ofTeam,
    technicianId: field.id().required(),
    from: field.instant().required(),
    until: field.instant().required(),
    reason: field.line(120).allow(''),
  }),
})
export const dropSwap = endpoint<{ teamId: number; itemId: number }, RotaSheet>({
  method: 'DELETE',
  path: `${rotaPath}/swaps/:itemId`,
  says: 'It is as the rota says again.',
  may: 'registers.edit',
  input: Joi.object<{ teamId: number; itemId: number }, true>({ ...ofTeam, itemId: field.id().required() }),
})

export interface OnCallNow extends OnCallSpan {
  teamId: number
  team: string
  technicianId: number
  personId: number
  name: string
  phone: string | null
  /** On leave at that moment, though on call. */
  away: boolean
}
export const listOnCall = endpoint<{ siteId: number }, { rows: OnCallNow[] }>({
  method: 'GET',
  path: '/api/sites/:siteId/on-call',
  says: 'Who is on call now, team by team, and how to reach them.',
  may: 'desk.read',
  input: Joi.object<{ siteId: number }, true>({ siteId: field.id().required() }),
})
