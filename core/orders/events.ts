import { event, plain } from '#core/kit'
import type { ChangedFields } from '#core/kit'
import type { OrderMove } from './moveNames'

/** What every move carries: the words on its button, and whom it took the job from. */
export interface MoveFacts {
  label: string
  /** Technicians who were sent and are no longer. */
  taken: number[]
  /** The state of its own it was put into with the move. */
  ownState: string
  /** Decided from a mail, and for whom somebody decided who stands in. */
  by: 'mail'
  actingFor: string
  /** Several visits were moved in one act, by this name: those who go are told of them together, by board.rearrange. */
  inOne: string
}
/** A visit on the Board, as it is now and as it was. */
interface VisitFacts {
  visitId: number
  technicianId: number | null
  vendorId: number | null
  start: string
  end: string
  fromStart: string
  fromEnd: string
  /** Technicians it was taken from. */
  taken: number[]
  inOne: string
}
interface DispatchFacts extends MoveFacts {
  start: string
  end: string
  technicianIds: number[]
  /** Those of the technicians. */
  visitIds: number[]
  vendorId: number | null
  visitId: number | null
  visitKind: string
}
/** What stands behind a move, besides its reason. */
const about = ({ ownState }: Partial<MoveFacts>): string => (ownState ? ownState : '')
const move = <const Rule extends Parameters<ReturnType<typeof event<MoveFacts>>>[0]>(rule: Rule) => event<MoveFacts>()({ about, ...rule })

const ORDER_MOVE_EVENTS = {
  'order.submit': move({ says: 'submitted it for approval', told: null, writes: true }),
  'order.approve': move({ says: 'approved it', told: null, writes: true }),
  'order.sendBack': move({ says: 'sent it back', told: null, writes: true }),
  'order.askAgain': move({ says: 'asked for approval again', told: null, writes: true }),
  'order.dispatch': event<DispatchFacts>()({
    says: 'dispatched it',
    about: ({ start }, words) => (start ? `for ${words.time(start)}` : ''),
    told: ({ start }, day) => (start ? `Planned for ${day(start)}.` : 'Planned.'),
    writes: true,
  }),
  'order.begin': move({ says: 'started it on the spot', told: null, writes: false }),
  'order.recall': move({ says: 'recalled it', told: null, writes: true, takesJob: true }),
  // Whoever is only on the way has not started on it: that is told when they do.
  'order.start': event<MoveFacts & { stint: string }>()({
    says: 'started the job',
    about,
    told: ({ stint }) => (stint === 'travel' ? '' : 'Somebody started on it.'),
    writes: false,
  }),
  'order.hold': move({ says: 'put it on hold', told: null, writes: true, takesJob: true }),
  'order.resume': move({ says: 'resumed it', told: null, writes: true }),
  'order.finish': move({ says: 'finished the work', told: null, writes: false }),
  'order.reopen': move({ says: 'reopened it', told: () => 'We opened it again.', writes: false, takesJob: true }),
  'order.check': move({ says: 'checked it', told: () => 'It is done.', writes: true }),
  'order.post': move({ says: 'posted the charges', told: null, writes: false }),
  'order.close': move({ says: 'closed it without charge', told: null, writes: false }),
  'order.reverse': move({ says: 'reversed the charges', told: null, writes: false }),
  'order.cancel': move({ says: 'cancelled it', told: () => 'It was called off.', writes: true, takesJob: true }),
  'order.discard': event<MoveFacts & { request: string }>()({ says: 'discarded the draft', told: null, writes: false }),
} satisfies Record<`order.${OrderMove}`, object>

/** What can happen to an order. */
export const ORDER_EVENTS = {
  ...ORDER_MOVE_EVENTS,
  'order.ownState': event<{ from: string | null; to: string | null }>()({
    says: 'said more exactly:',
    about: ({ from, to }) => to ?? `no longer ${from ?? ''}`,
    told: null,
    writes: false,
  }),
  'order.ownStates': event<{ name: string; what: 'added' | 'changed' | 'retired' | 'restored' }>()({
    says: 'changed an own state:',
    about: ({ name, what }) => [name, what].filter(Boolean).join(', '),
    told: null,
    writes: false,
  }),
  'order.create': event<{ request: string; plan: boolean; template: string; findings: string; callBackOf: string }>()({
    says: 'made the order',
    about: ({ template, findings, callBackOf }) =>
      template ? `from the template ${template}` : findings ? `of what was found on ${findings}` : callBackOf ? `as a call-back of ${callBackOf}` : '',
    told: null,
    writes: false,
  }),
  'order.edit': event<{ fields: ChangedFields }>()({ says: 'changed the order', told: null, writes: true }),
  'order.question': event<{ by: 'mail' }>()({ says: 'asked before deciding', told: null, writes: true, talk: true }),
  'order.handOver': event<{ toId: number }>()({ says: 'handed the decision over', told: null, writes: true }),
  'order.close_to': event<{ dueAt: string }>()({ says: 'saw its target come close', told: null, writes: true, byClock: true, talk: true }),
  'order.past': event<{ dueAt: string }>()({ says: 'saw its target pass', told: null, writes: true, byClock: true, talk: true }),
  'order.join': event<{ lead: string }>()({ says: 'put it into a group', told: null, writes: false }),
  'order.leave': event<{ lead: string }>()({ says: 'took it out of its group', told: null, writes: false }),
  'order.lead': event<{ member: string }>()({ says: 'put another order under it', told: null, writes: false }),
  'order.unlead': event<{ member: string }>()({ says: 'took an order out of its group', told: null, writes: false }),
  'order.moveVisit': event<VisitFacts>()({
    says: 'moved a visit',
    about: ({ start }, words) => (start ? `to ${words.time(start)}` : ''),
    // Who reported it is told of days: another hour, or somebody else, is no news to them.
    told: ({ start, fromStart }, day) => (!start || (fromStart && day(start) === day(fromStart)) ? '' : `Planned for ${day(start)} now.`),
    writes: true,
    takesJob: true,
  }),
  'order.addVisit': event<VisitFacts>()({
    says: 'planned another visit',
    about: ({ start }, words) => (start ? `for ${words.time(start)}` : ''),
    told: null,
    writes: true,
  }),
  'order.dropVisit': event<VisitFacts>()({
    says: 'took a visit back',
    about: ({ fromStart }, words) => (fromStart ? `planned for ${words.time(fromStart)}` : ''),
    told: null,
    writes: true,
    takesJob: true,
  }),
  'board.rearrange': event<{ act: string; visits: number }>()({
    says: 'rearranged the Board:',
    about: ({ visits }) => (visits ? `${visits} visits` : ''),
    told: null,
    writes: true,
  }),
  'order.restore': plain('brought the draft back'),
  'order.archive': plain('archived it'),
  'order.revokePass': plain('took back the vendor pass'),
}
