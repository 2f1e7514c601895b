import { notice } from '#server/kit'
import type { Mails, Telling } from '#server/kit'
import { orderOf } from '#server/orders'
import { noticeOfUnable } from './noticeOfUnable'
import { tellApprovers } from './tellApprovers'

/** What approvers are asked, and what the desk hears of their answers. */
export const approvalMails = {
  'order.submit': tellApprovers,
  'order.askAgain': tellApprovers,
  'order.handOver': tellApprovers,
  'order.approve': async (telling) => {
    // Agreed to by one of several: those whose turn comes now are asked.
    if (telling.event.toState === 'to_approve') await tellApprovers(telling)
    else await noticeForDesk(telling, 'approved')
  },
  'order.question': noticeOfQuestion,
  'order.sendBack': (telling) => noticeForDesk(telling, 'sent back'),
  'setup.account': noticeOfUnable,
} satisfies Mails

async function noticeForDesk(telling: Telling, verdict: string): Promise<void> {
  const { order } = await orderOf(telling)
  const whom = [order.submittedBy, order.createdBy].filter((id) => id !== null && id !== telling.event.actorId) as number[]
  await notice(telling, whom, `${order.number} was ${verdict}${telling.event.reason ? `: ${telling.event.reason}` : `: ${order.summary}`}`)
}

async function noticeOfQuestion(telling: Telling): Promise<void> {
  const { order } = await orderOf(telling)
  const whom = [order.submittedBy, order.createdBy].filter((id) => id !== null)
  await notice(telling, whom, `${telling.event.actorName} asks about ${order.number}: ${telling.event.reason ?? ''}`)
}
