import { DateTime } from 'luxon'
import type { EventFacts } from '#core/events'
import { whoSent } from '#server/dispatch'
import { mail, notice } from '#server/kit'
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
  /** Whoever was looked for is found. */
  'lone.checkIn': async (telling) => {
    if (!(telling.event.details as EventFacts<'lone.checkIn'>).wasTold) return
    const { order } = await orderOf(telling)
    await notice(telling, (await whoSent(telling.tx, order)).map(({ id }) => id), `${telling.event.actorName} is all right, on ${order.number}`) // prettier-ignore
  },
  'lone.overdue': async (telling) => {
    const { event, service, tx } = telling
    const { name, phone, dueAt } = event.details as { name: string; phone: string | null; dueAt: string }
    const { order, site, place } = await orderOf(telling)
    const whom = await whoSent(tx, order)
    const by = DateTime.fromISO(dueAt, { zone: site.zone }).toFormat('HH:mm')
    const where = place ? `${place.code} ${place.name}` : site.name
    const sentence = `${name} works alone on ${order.number} at ${where} and has not checked in by ${by}${phone ? `: call ${phone}` : ''}`
    await notice(telling, whom.map(({ id }) => id), sentence) // prettier-ignore
    const text = `${sentence}.\n\n${order.summary}\n${[place?.within, place?.access, order.access].filter(Boolean).join('\n')}\n\n${service.publicUrl()}/desk/field/order/${order.id}\n`
    for (const to of new Set([site.deskEmail, ...whom.map(({ email }) => email)])) await mail(telling, 'lone.overdue', to, `Not heard of: ${name}`, text)
  },
} satisfies Mails
