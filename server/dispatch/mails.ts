import { and, eq, gt, inArray, ne } from 'drizzle-orm'
import { DateTime } from 'luxon'
import { PRIORITY_NAMES } from '#core/requests'
import type { Priority } from '#core/requests'
import { windowSays } from '#core/windows'
import { mail, notice } from '#server/kit'
import type { Mails, Telling } from '#server/kit'
import { orderOf, windowOf } from '#server/orders'
import type { namePlace } from '#server/places'
import { accounts, orders, people, technicians, vendorPasses, vendors, visits } from '../tables'
import { invitationText } from './invitation'

/** What those who are sent, or were, are written: technicians and vendors, each with what their calendar takes. */
export const dispatchMails = {
  'order.dispatch': async (telling) => {
    const { technicianIds = [], visitIds, visitId } = factsIn<{ technicianIds: number[]; visitIds: number[]; visitId: number | null }>(telling)
    // Told late, it tells of the visits it made all the same; older events name the technicians alone.
    const theirs = visitIds ? inArray(visits.id, [0, ...visitIds]) : and(eq(visits.state, 'planned'), inArray(visits.technicianId, [0, ...technicianIds]))
    await invite(telling, await goingOf(telling, theirs))
    await tellVendor(telling, visitId ?? null)
  },
  'order.addVisit': async (telling) => invite(telling, await visitsOf(telling)),
  'order.moveVisit': async (telling) => {
    const { taken = [], fromStart, fromEnd } = factsIn<{ taken: number[]; fromStart: string; fromEnd: string }>(telling)
    const sent = await visitsOf(telling)
    for (const one of sent)
      if (taken.length)
        await callOff(
          telling,
          (await technicianOf(telling, taken)).map((person) => ({
            ...one,
            ...person,
            visit: { ...one.visit, plannedStart: new Date(fromStart!), plannedEnd: new Date(fromEnd!) },
          })),
          'is with somebody else now; do not go',
        )
    await invite(telling, sent, taken.length ? 'New job' : 'Another time for')
    for (const { visit } of sent) if (visit.vendorId) await tellVendor(telling, visit.id)
  },
  'order.dropVisit': async (telling) => callOff(telling, await visitsOf(telling), 'is not yours any more; do not go'),
  'order.recall': (telling) => tellAllOff(telling, 'was taken back to the desk; do not go'),
  'order.hold': (telling) => tellAllOff(telling, 'is on hold'),
  'order.resume': async (telling) => {
    const sent = await goingOf(telling, and(eq(visits.state, 'planned'), gt(visits.plannedEnd, telling.event.at)))
    await invite(telling, sent, 'On again:')
    for (const { visit } of sent) if (visit.vendorId) await tellVendor(telling, visit.id)
  },
  'order.cancel': (telling) => tellAllOff(telling, 'was called off'),
  'order.edit': async (telling) => {
    const to = telling.event.details?.fields?.priority?.to as Priority | undefined
    if (to) await noticeForCrew(telling, `is ${PRIORITY_NAMES[to]} now`)
  },
} satisfies Mails

/** Older events may lack some of what their kind carries. */
const factsIn = <Facts extends object>({ event }: Telling): Partial<Facts> => (event.details ?? {}) as Partial<Facts>

/** Somebody who goes somewhere, or should have. */
interface Going {
  visit: typeof visits.$inferSelect
  accountId: number | null
  name: string
  email: string
}

/** Who is behind visits of the order: technicians, and vendors, who have no account. */
async function goingOf({ tx, event }: Telling, which: Parameters<typeof and>[0]): Promise<Going[]> {
  if (!event.orderId) throw new Error(`Event ${event.id} names no order.`)
  const rows = await tx
    .select({ visit: visits, accountId: accounts.id, person: people.name, email: accounts.email, vendor: vendors.name, vendorEmail: vendors.email })
    .from(visits)
    .leftJoin(technicians, eq(technicians.id, visits.technicianId))
    .leftJoin(accounts, eq(accounts.id, technicians.accountId))
    .leftJoin(people, eq(people.id, accounts.personId))
    .leftJoin(vendors, eq(vendors.id, visits.vendorId))
    .where(and(eq(visits.orderId, event.orderId), which))
    .orderBy(visits.id)
  return rows.map(({ visit, accountId, person, email, vendor, vendorEmail }) => ({
    visit,
    accountId,
    name: person ?? vendor ?? '',
    email: email ?? vendorEmail ?? '',
  }))
}
const visitsOf = (telling: Telling): Promise<Going[]> => goingOf(telling, eq(visits.id, factsIn<{ visitId: number }>(telling).visitId ?? 0))
const technicianOf = ({ tx }: Telling, ids: readonly number[]) =>
  tx
    .select({ accountId: accounts.id, name: people.name, email: accounts.email })
    .from(technicians)
    .innerJoin(accounts, eq(accounts.id, technicians.accountId))
    .innerJoin(people, eq(people.id, accounts.personId))
    .where(inArray(technicians.id, [...ids]))

/** Technicians are sent, or sent at another time: a notice, and a mail their calendar takes. Vendors are told with their pass. */
async function invite(telling: Telling, sent: readonly Going[], what = 'New job'): Promise<void> {
  const ours = sent.filter(({ accountId }) => accountId !== null)
  if (!ours.length) return
  const { order, site, place } = await orderOf(telling)
  for (const one of ours) {
    const when = planWords(one.visit, site.zone)
    const text = [...jobWords(order, place, when, site.zone), '', 'Open your Rounds:', `${telling.service.publicUrl()}/rounds`].join('\n')
    await mail(telling, 'job', one.email, `${order.number} ${order.summary}, ${when}`, text, { calendar: await calendarOf(telling, 'REQUEST', one) })
    await notice(telling, [one.accountId!], `${what} ${order.number}, ${when}: ${order.summary}`)
  }
}

/** They do not go after all: their calendar is told as well. */
async function callOff(telling: Telling, sent: readonly Going[], what: string): Promise<void> {
  if (!sent.length) return
  const { order, site } = await orderOf(telling)
  for (const one of sent) {
    const when = planWords(one.visit, site.zone)
    const text = [`${order.number} ${what}.`, '', order.summary, `It was planned for ${when}.`, '', `${site.name}, ${site.deskPhone}`].join('\n')
    await mail(telling, 'job_off', one.email, `${order.number} ${what.split(';')[0]}: ${order.summary}`, text, {
      calendar: await calendarOf(telling, 'CANCEL', one),
    })
    if (one.accountId !== null && one.accountId !== telling.event.actorId) await notice(telling, [one.accountId], `${order.number} ${what}: ${order.summary}`)
  }
}

/** Everybody who was to come is told, and whoever is there hears it as well. */
async function tellAllOff(telling: Telling, what: string): Promise<void> {
  const { event } = telling
  await noticeForCrew(telling, what)
  const off = await goingOf(telling, eq(visits.state, event.kind === 'order.hold' ? 'planned' : 'recalled'))
  // Who declined knows, and is told of it by itself.
  const mine = off.filter(({ visit }) => visit.answer !== 'declined' && (event.kind === 'order.hold' || visit.endedAt?.getTime() === event.at.getTime()))
  // They have their notice already.
  await callOff(
    telling,
    mine.map((one) => ({ ...one, accountId: null })),
    what,
  )
}

async function calendarOf(telling: Telling, method: 'REQUEST' | 'CANCEL', { visit, name, email }: Going): Promise<string> {
  const { order, site, place } = await orderOf(telling)
  return invitationText(
    method,
    {
      visitId: visit.id,
      sequence: telling.event.id,
      from: visit.plannedStart,
      until: visit.plannedEnd,
      summary: `${order.number} ${order.summary}`,
      description: jobWords(order, place, planWords(visit, site.zone), site.zone).join('\n'),
      location: place ? [`${place.code} ${place.name}`, place.within].filter(Boolean).join(', ') : '',
      url: visit.vendorId ? '' : `${telling.service.publicUrl()}/rounds`,
      organizer: { name: site.name, email: site.deskEmail },
      attendee: { name, email },
    },
    telling.event.at,
  )
}

/** Who declined does not go: their calendar is told. */
export async function tellDeclined(telling: Telling, visitId: number): Promise<void> {
  await callOff(telling, await goingOf(telling, eq(visits.id, visitId)), 'is not yours, since you declined it')
}

/** A vendor hears where and when, and answers by their pass. @param opening what is said first */
export async function tellVendor(telling: Telling, visitId: number | null, opening: string | null = null): Promise<void> {
  const { tx, service } = telling
  if (!visitId) return
  const [pass] = await tx.select().from(vendorPasses).where(eq(vendorPasses.visitId, visitId))
  const [one] = await goingOf(telling, eq(visits.id, visitId))
  if (!pass || !one) return
  const { order, site, place } = await orderOf(telling)
  const when = planWords(one.visit, site.zone)
  const link = `${service.publicUrl()}/p/${service.links.again('pass', pass.nonce)}`
  const until = DateTime.fromJSDate(pass.expiresAt, { zone: site.zone }).toFormat('d LLLL yyyy')
  const answer = one.visit.answer === 'accepted' ? 'You have said that you come.' : 'Say whether you come, or when you could, with your pass:'
  const text = [
    ...(opening ? [opening, ''] : []),
    ...jobWords(order, place, when, site.zone),
    '',
    answer,
    '',
    `Your pass to this job (until ${until}; it needs no account, so keep it to those who do the work):`,
    link,
    '',
    `${site.name}, ${site.deskPhone}`,
  ].join('\n')
  await mail(telling, 'pass', one.email, `${order.number} ${order.summary}, ${when}`, text, { calendar: await calendarOf(telling, 'REQUEST', one) })
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

function planWords(visit: { plannedStart: Date; plannedEnd: Date }, zone: string): string {
  const from = DateTime.fromJSDate(visit.plannedStart, { zone }).setLocale('en-IE')
  return `${from.toFormat('ccc d LLL, HH:mm')} to ${DateTime.fromJSDate(visit.plannedEnd, { zone }).toFormat('HH:mm')}`
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
