import { and, eq, inArray, ne } from 'drizzle-orm'
import { DateTime } from 'luxon'
import { PRIORITY_NAMES } from '#core/requests'
import type { Priority } from '#core/requests'
import { windowSays } from '#core/windows'
import { mail, notice } from '#server/kit'
import type { Mails, PublishedEvent, Telling } from '#server/kit'
import { orderOf, windowOf } from '#server/orders'
import type { namePlace } from '#server/places'
import { accounts, orders, technicians, vendorPasses, vendors, visits } from '../tables'

/** What those who are sent, or were, are written: technicians and vendors. */
export const dispatchMails = {
  'order.dispatch': async (telling) => {
    await tellTechnicians(telling)
    await tellVendor(telling)
  },
  'order.recall': (telling) => noticeForCrew(telling, 'was taken back to the desk; do not go'),
  'order.hold': (telling) => noticeForCrew(telling, 'is on hold'),
  'order.cancel': (telling) => noticeForCrew(telling, 'was called off'),
  'order.edit': async (telling) => {
    const to = telling.event.details?.fields?.priority?.to as Priority | undefined
    if (to) await noticeForCrew(telling, `is ${PRIORITY_NAMES[to]} now`)
  },
} satisfies Mails

async function tellTechnicians(telling: Telling): Promise<void> {
  const { tx, event, service } = telling
  const ids = (event.details as { technicianIds?: number[] } | null)?.technicianIds ?? []
  if (!ids.length) return
  const { order, site, place } = await orderOf(telling)
  const crew = await tx
    .select({ accountId: accounts.id, email: accounts.email })
    .from(technicians)
    .innerJoin(accounts, eq(accounts.id, technicians.accountId))
    .where(inArray(technicians.id, ids))
  const when = planWords(event, site.zone)
  for (const { email } of crew)
    await mail(
      telling,
      'job',
      email,
      `${order.number} ${order.summary}, ${when}`,
      [...jobWords(order, place, when, site.zone), '', 'Open your Rounds:', `${service.publicUrl()}/rounds`].join('\n'),
    )
  await notice(
    telling,
    crew.map((row) => row.accountId),
    `New job ${order.number}, ${when}: ${order.summary}`,
  )
}

async function tellVendor(telling: Telling): Promise<void> {
  const { tx, event, service } = telling
  const visitId = (event.details as { visitId?: number | null } | null)?.visitId
  if (!visitId) return
  const [found] = await tx
    .select({ pass: vendorPasses, vendor: vendors })
    .from(vendorPasses)
    .innerJoin(visits, eq(visits.id, vendorPasses.visitId))
    .innerJoin(vendors, eq(vendors.id, visits.vendorId))
    .where(eq(vendorPasses.visitId, visitId))
  if (!found) return
  const { order, site, place } = await orderOf(telling)
  const when = planWords(event, site.zone)
  const link = `${service.publicUrl()}/p/${service.links.again('pass', found.pass.nonce)}`
  const until = DateTime.fromJSDate(found.pass.expiresAt, { zone: site.zone }).toFormat('d LLLL yyyy')
  const text = [
    ...jobWords(order, place, when, site.zone),
    '',
    `Your pass to this job (until ${until}; it needs no account, so keep it to those who do the work):`,
    link,
    '',
    `${site.name}, ${site.deskPhone}`,
  ].join('\n')
  await mail(telling, 'pass', found.vendor.email, `${order.number} ${order.summary}, ${when}`, text)
}

function jobWords(order: typeof orders.$inferSelect, place: Awaited<ReturnType<typeof namePlace>>, when: string, zone: string): string[] {
  const window = windowOf(order)
  const line = (name: string, value: string | null | undefined) => (value ? [`${name}: ${value}`] : [])
  return [
    order.summary,
    order.description,
    '',
    `When: ${when}`,
    ...line('Agreed', window ? `${windowSays(window, zone)}${window.with ? `, with ${window.with}` : ''}` : null),
    ...line('Where', place ? [`${place.code} ${place.name}`, place.within].filter(Boolean).join(', ') : null),
    ...line('Getting in', [place?.access, order.access].filter(Boolean).join(' ')),
    ...line('Contact', [order.contactName, order.contactPhone].filter(Boolean).join(', ')),
    ...line('Note', order.noteForWorker),
  ]
}

function planWords(event: PublishedEvent, zone: string): string {
  const { start, end } = event.details as { start: string; end: string }
  const from = DateTime.fromISO(start, { zone }).setLocale('en-IE')
  return `${from.toFormat('ccc d LLL, HH:mm')} to ${DateTime.fromISO(end, { zone }).toFormat('HH:mm')}`
}

async function noticeForCrew(telling: Telling, what: string): Promise<void> {
  const { tx, event } = telling
  const { order } = await orderOf(telling)
  const crew = await tx
    .select({ accountId: technicians.accountId })
    .from(visits)
    .innerJoin(technicians, eq(technicians.id, visits.technicianId))
    .where(and(eq(visits.orderId, event.orderId!), ne(visits.state, 'ended')))
  await notice(
    telling,
    crew.map((row) => row.accountId).filter((id) => id !== event.actorId),
    `${order.number} ${what}: ${order.summary}`,
  )
}
