import { and, eq, inArray, isNull, ne } from 'drizzle-orm'
import { LIVE_VISIT_STATES } from '#core/dispatch'
import { stationOf } from '#core/orders'
import type { EventFacts } from '#core/events'
import { whoSent } from '#server/dispatch'
import { mail, notice } from '#server/kit'
import type { Mails, Telling, Tx } from '#server/kit'
import { orderOf } from '#server/orders'
import { accounts, people, requestOrders, technicians, vendorPasses, vendors, visits } from '../tables'

/** What is said on an order is told to those it is for, who did not say it. Reporters are mailed by their own conversation. */
export const talkMails = {
  'talk.say': async (telling) => {
    const { speaker, audience, visitId } = telling.event.details as EventFacts<'talk.say'>
    if (speaker !== 'desk') await tellDesk(telling, speaker === 'vendor')
    if (audience === 'vendor') {
      if (speaker === 'desk') await tellVendor(telling, visitId ?? null)
    } else await tellCrew(telling, [telling.event.orderId!])
  },
  /** Who is on the job hears what its reporter wrote, too. */
  'request.heard': async (telling) => {
    const { tx, event } = telling
    // What somebody else wrote into their thread is for the desk alone.
    if ((event.details as { other?: boolean } | null)?.other) return
    const linked = await tx.select({ orderId: requestOrders.orderId }).from(requestOrders).where(eq(requestOrders.requestId, event.requestId!))
    await tellCrew(
      telling,
      linked.map(({ orderId }) => orderId),
    )
  },
} satisfies Mails

const quoted = ({ event }: Telling) => `“${event.reason ?? ''}”`

async function tellDesk(telling: Telling, byMail: boolean): Promise<void> {
  const { tx, event, service } = telling
  const { order, site } = await orderOf(telling)
  const whom = await whoSent(tx, order)
  await notice(
    telling,
    whom.map(({ id }) => id),
    `${event.actorName} wrote on ${order.number}: ${event.reason ?? ''}`,
  )
  if (!byMail && whom.length) return
  const text = [quoted(telling), '', order.summary, '', `${service.publicUrl()}/desk/${stationOf(order.state)}/order/${order.id}`].join('\n')
  for (const to of whom.length ? whom.map(({ email }) => email) : [site.deskEmail])
    await mail(telling, 'talk', to, `${event.actorName} wrote on ${order.number}`.slice(0, 180), text)
}

/** Technicians who are sent there, or are there. */
const crewOf = (tx: Tx, orderIds: number[]) =>
  tx
    .selectDistinct({ accountId: accounts.id, email: accounts.email, visitId: visits.id, name: people.name })
    .from(visits)
    .innerJoin(technicians, eq(technicians.id, visits.technicianId))
    .innerJoin(accounts, and(eq(accounts.id, technicians.accountId), isNull(accounts.disabledAt)))
    .innerJoin(people, eq(people.id, accounts.personId))
    .where(and(inArray(visits.orderId, [0, ...orderIds]), inArray(visits.state, LIVE_VISIT_STATES)))

async function tellCrew(telling: Telling, orderIds: number[]): Promise<void> {
  const { tx, event, service } = telling
  const crew = (await crewOf(tx, orderIds)).filter(({ accountId }) => accountId !== event.actorId)
  for (const [index, { accountId, email, visitId }] of crew.entries()) {
    if (crew.findIndex((one) => one.accountId === accountId) !== index) continue
    await notice(telling, [accountId], `${event.actorName} wrote: ${event.reason ?? ''}`, `/rounds/${visitId}`)
    const text = [quoted(telling), '', `${service.publicUrl()}/rounds/${visitId}`].join('\n')
    await mail(telling, 'talk', email, `${event.actorName} wrote about your job`.slice(0, 180), text)
  }
}

async function tellVendor(telling: Telling, visitId: number | null): Promise<void> {
  const { tx, service } = telling
  const { order, site } = await orderOf(telling)
  const [found] = await tx
    .select({ pass: vendorPasses, email: vendors.email })
    .from(vendorPasses)
    .innerJoin(visits, eq(visits.id, vendorPasses.visitId))
    .innerJoin(vendors, eq(vendors.id, visits.vendorId))
    .where(and(eq(vendorPasses.visitId, visitId ?? 0), isNull(vendorPasses.revokedAt), ne(visits.state, 'recalled')))
  if (!found) return
  const link = `${service.publicUrl()}/p/${service.links.again('pass', found.pass.nonce)}`
  const text = [quoted(telling), '', order.summary, '', 'Answer with your pass:', link, '', `${site.name}, ${site.deskPhone}`].join('\n')
  await mail(telling, 'talk', found.email, `${order.number} ${order.summary}: a message`, text)
}
