import { eq } from 'drizzle-orm'
import { mail, notice } from '#server/kit'
import type { Mails } from '#server/kit'
import { orderOf } from '#server/orders'
import { accounts, technicians } from '../tables'

/** Who is given a step hears of it; who leads the order hears that it was done, left out or found wrong. */
export const methodMails = {
  'step.give': async (telling) => {
    const { event, tx, service } = telling
    const { toId, step } = event.details as { toId: number; step: string }
    if (toId === event.actorId) return
    const { order, place } = await orderOf(telling)
    const [to] = await tx
      .select({ email: accounts.email, technicianId: technicians.id })
      .from(accounts)
      .leftJoin(technicians, eq(technicians.accountId, accounts.id))
      .where(eq(accounts.id, toId))
    if (!to) return
    const page = to.technicianId === null ? '/my-steps' : '/rounds/steps'
    const where = place ? `${place.code} ${place.name}` : ''
    await notice(telling, [toId], `${event.actorName} gave you a step of ${order.number}: ${step}`, page)
    await mail(
      telling,
      'step',
      to.email,
      `${order.number} a step for you: ${step}`.slice(0, 180),
      [
        `${event.actorName} gave you a step of an order that stays with somebody else.`,
        '',
        step,
        '',
        `${order.number} ${order.summary}`,
        where,
        '',
        `${service.publicUrl()}${page}`,
      ]
        .filter((line, index, all) => line !== '' || all[index - 1] !== '')
        .join('\n'),
    )
  },
  'step.do': async (telling) => {
    const { event } = telling
    const { step, value, outside, left } = event.details as { step: string; value: string | null; outside: boolean; left: boolean }
    const { order } = await orderOf(telling)
    if (!order.leadId || order.leadId === event.actorId) return
    const what = left ? `left out a step of ${order.number}` : `did a step of ${order.number}`
    await notice(telling, [order.leadId], `${event.actorName} ${what}: ${[step, value].filter(Boolean).join(', ')}${outside ? ', outside its limits' : ''}`)
  },
} satisfies Mails
