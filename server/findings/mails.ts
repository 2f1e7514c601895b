import type { EventFacts } from '#core/events'
import { whoSent } from '#server/dispatch'
import { notice } from '#server/kit'
import type { Mails } from '#server/kit'
import { orderOf } from '#server/orders'

/** What is unsafe and was not put right at once, whoever sent somebody there hears of at once. */
export const findingMails = {
  'finding.add': async (telling) => {
    const { severity, fixedNow, where, text } = telling.event.details as EventFacts<'finding.add'>
    if (severity !== 'unsafe' || fixedNow) return
    const { order } = await orderOf(telling)
    const whom = await whoSent(telling.tx, order)
    const what = [where, text].filter(Boolean).join(': ')
    await notice(telling, whom.map(({ id }) => id), `Unsafe, found on ${order.number}: ${what}`) // prettier-ignore
  },
} satisfies Mails
