import { event } from '#core/kit'
import type { ChangedFields } from '#core/kit'
import type { Channel } from './channels'
import type { RequestMove } from './lifecycle'

interface ReportFacts {
  channel: Channel
  /** The request its sender follows, when they wrote anew. */
  follows: string
  /** The request it says is not fixed. */
  repeats: string
  /** The key of the program that sent it. */
  key: string
}
interface OutcomeFacts {
  label: string
  order: string
  /** Accepted into an order that was there. */
  joined: boolean
  to: string
}
const asOrder = ({ order }: { order?: string }) => (order ? `as ${order}` : '')

const REQUEST_MOVE_EVENTS = {
  'request.accept': event<OutcomeFacts>()({ says: 'accepted it', about: asOrder, told: () => 'We took it on.', writes: false }),
  'request.ask': event<OutcomeFacts>()({ says: 'asked the reporter', told: () => 'We asked you a question.', writes: true }),
  'request.answer': event<OutcomeFacts>()({ says: 'answered', told: () => 'You answered.', writes: false }),
  'request.decline': event<OutcomeFacts>()({ says: 'declined it', told: () => 'We closed it with an answer.', writes: true }),
  'request.join': event<OutcomeFacts>()({
    says: 'joined it to another request',
    told: () => 'Somebody had told us already; you hear how it goes.',
    writes: false,
  }),
  'request.begin': event<OutcomeFacts>()({ says: 'started on it on the spot', about: asOrder, told: () => 'We took it on.', writes: false }),
} satisfies Record<`request.${RequestMove}`, object>

/** What can happen to a request. */
export const REQUEST_EVENTS = {
  ...REQUEST_MOVE_EVENTS,
  'request.report': event<ReportFacts>()({ says: 'reported it', told: () => 'We received it.', writes: true }),
  'request.takeUp': event()({ says: 'took it up', told: null, writes: false }),
  'request.edit': event<{ fields: ChangedFields }>()({ says: 'corrected the request', told: null, writes: false }),
  'request.another': event<{ order: string }>()({ says: 'made another order of it', about: asOrder, told: null, writes: false }),
  'request.undo': event<{ move: RequestMove | 'another'; order: string }>()({
    says: 'took the outcome back',
    told: () => 'We took that back and are looking at it again.',
    writes: true,
  }),
  'request.heard': event<{ by: string; commentId: number; other: boolean }>()({ says: 'wrote', told: null, writes: true }),
  'request.note': event()({ says: 'noted', told: null, writes: false, talk: true }),
  'request.message': event()({ says: 'wrote to the reporter', told: null, writes: true, talk: true }),
  'request.follow': event<{ email: string }>()({ says: 'follows it', told: null, writes: true }),
  'request.fixed': event()({ says: 'said that it is fixed', told: () => 'You said that it is fixed.', writes: false }),
  'request.notFixed': event<{ as: string }>()({ says: 'said that it is not fixed', told: () => 'You said that it is not fixed.', writes: true }),
}
