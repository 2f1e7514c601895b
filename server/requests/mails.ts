import { dayWords } from '#core/requests'
import { whatWasDone } from '#core/field'
import type { Mails } from '#server/kit'
import { orderOf } from '#server/orders'
import { noticeOfReporter, tellReporters } from './tellReporters'

/** What a reporter was told and is no longer so; they never heard of the other outcomes. */
const TAKEN_BACK: Record<string, string> = {
  decline: 'We closed your request too early. It is open again, and we are looking at it.',
  ask: 'You need not answer our question any more. We are looking at your request.',
}

/** What reporters, those who follow and the desk are written of requests and of the work on them. */
export const requestMails = {
  'request.report': (telling) => tellReporters(telling, 'received', 'reporter'),
  'request.ask': (telling) => tellReporters(telling, 'question', 'reporter', ({ request }) => request.question ?? ''),
  'request.decline': async (telling) => {
    await tellReporters(telling, 'declined', 'reporter', ({ request }) => request.declineReason ?? '')
    await tellReporters(telling, 'called_off', 'others')
  },
  'request.message': (telling) => tellReporters(telling, 'message', 'reporter', ({ event }) => event.reason ?? ''),
  'request.follow': (telling) => tellReporters(telling, 'following', 'others', undefined, (telling.event.details as { email: string } | null)?.email),
  'request.undo': async (telling) => {
    const words = TAKEN_BACK[String(telling.event.details?.move)]
    // Those who follow were told that it was closed; of questions they never heard.
    if (words) await tellReporters(telling, 'message', telling.event.details?.move === 'decline' ? 'everybody' : 'reporter', () => words)
  },
  'request.heard': noticeOfReporter,
  'request.notFixed': noticeOfReporter,
  'order.check': async (telling) => {
    const { order } = await orderOf(telling)
    await tellReporters(telling, 'done', 'everybody', () => whatWasDone(order.fix) ?? '')
  },
  'order.cancel': (telling) => tellReporters(telling, 'called_off', 'everybody'),
  'order.dispatch': (telling) =>
    tellReporters(telling, 'scheduled', 'everybody', ({ zone, event }) => {
      const start = (event.details as { start?: string } | null)?.start
      return start ? dayWords(new Date(start), event.at, zone) : 'one of the next days'
    }),
} satisfies Mails
