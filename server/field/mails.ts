import { whoSent } from '#server/dispatch'
import { notice } from '#server/kit'
import type { Mails } from '#server/kit'
import { orderOf } from '#server/orders'

/** What the desk hears of the field by itself. */
export const fieldMails = {
  'field.unsent': async (telling) => {
    const { order } = await orderOf(telling)
    const whom = await whoSent(telling.tx, order)
    await notice(
      telling,
      whom.map(({ id }) => id),
      `${telling.event.actorName} recorded on ${order.number} what could not be taken: see its timeline`,
    )
  },
} satisfies Mails
