import { and, eq, ne } from 'drizzle-orm'
import { windowSays } from '#core/windows'
import { mail, notice } from '#server/kit'
import type { Mails, Telling } from '#server/kit'
import { orderOf } from '#server/orders'
import { technicians, timeOffers, visits } from '../tables'
import { timesOf } from './offers'
import type { OfferRecord } from './offers'

async function offerOf({ tx, event }: Telling): Promise<OfferRecord | undefined> {
  const [offer] = await tx
    .select()
    .from(timeOffers)
    .where(eq(timeOffers.id, (event.details as { offerId: number }).offerId))
  return offer
}

/** Who asked, who leads it and who is planned to go: all but whoever did it. */
async function tellDesk(telling: Telling, sentence: string, askedBy: number | null): Promise<void> {
  const { tx, event } = telling
  const { order } = await orderOf(telling)
  const crew = await tx
    .select({ id: technicians.accountId })
    .from(visits)
    .innerJoin(technicians, eq(technicians.id, visits.technicianId))
    .where(and(eq(visits.orderId, order.id), ne(visits.state, 'ended')))
  const whom = [askedBy, order.leadId, ...crew.map(({ id }) => id)].filter((id) => id !== null && id !== event.actorId) as number[]
  await notice(telling, whom, sentence)
}

const spanOf = ({ event }: Telling, zone: string) => {
  const { from, until } = event.details as { from: string; until: string }
  return windowSays({ from: new Date(from), until: new Date(until) }, zone)
}

/** Times offered by mail with a link to choose by, and what the desk hears of the answers. */
export const windowMails = {
  'window.offer': async (telling) => {
    const offer = await offerOf(telling)
    if (!offer || offer.state === 'withdrawn') return
    const { order, site, place } = await orderOf(telling)
    const text = [
      `Dear ${offer.name},`,
      '',
      `we would like to come for ${order.number}, ${order.summary}${place ? `, in ${[place.name, place.within].filter(Boolean).join(', ')}` : ''}.`,
      'Choose when somebody can let us in:',
      '',
      ...timesOf(offer).map((time) => `  ${windowSays(time, site.zone)}`),
      ...(offer.note ? ['', offer.note] : []),
      '',
      `${telling.service.publicUrl()}/w/${telling.service.links.again('times', offer.nonce)}`,
      '',
      `${site.name}, ${site.deskPhone}`,
    ].join('\n')
    await mail(telling, 'window.offer', offer.email, `When can we come? ${order.summary}`.slice(0, 180), text, { from: site.deskEmail })
  },
  'window.withdraw': async (telling) => {
    const offer = await offerOf(telling)
    if (!offer) return
    const { order, site } = await orderOf(telling)
    const text = [
      `Dear ${offer.name},`,
      '',
      `you need not choose a time for ${order.number}, ${order.summary}, any more.`,
      '',
      `${site.name}, ${site.deskPhone}`,
    ].join('\n')
    await mail(telling, 'window.withdraw', offer.email, `No time needed any more: ${order.summary}`.slice(0, 180), text, { from: site.deskEmail })
  },
  'window.choose': async (telling) => {
    const offer = await offerOf(telling)
    const { order, site } = await orderOf(telling)
    const note = telling.event.reason ? `: ${telling.event.reason}` : ''
    await tellDesk(telling, `${telling.event.actorName} chose ${spanOf(telling, site.zone)} for ${order.number}${note}`, offer?.askedBy ?? null)
  },
  'window.none': async (telling) => {
    const offer = await offerOf(telling)
    const { order } = await orderOf(telling)
    await tellDesk(telling, `None of the times fits ${telling.event.actorName} for ${order.number}: ${telling.event.reason ?? ''}`, offer?.askedBy ?? null)
  },
  'window.agree': async (telling) => {
    const { order, site } = await orderOf(telling)
    await tellDesk(telling, `${order.number} is agreed for ${spanOf(telling, site.zone)}: ${order.summary}`, null)
  },
  'window.clear': async (telling) => {
    const { order } = await orderOf(telling)
    await tellDesk(telling, `${order.number} has no agreed time any more: ${order.summary}`, null)
  },
} satisfies Mails
