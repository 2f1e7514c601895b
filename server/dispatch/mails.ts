import { and, desc, eq, gt, inArray, isNull, lt, ne } from 'drizzle-orm'
import { DateTime } from 'luxon'
import { PRIORITY_NAMES } from '#core/requests'
import type { Priority } from '#core/requests'
import { windowSays } from '#core/windows'
import { mail, notice } from '#server/kit'
import type { Mails, Telling, Tx } from '#server/kit'
import { orderOf, windowOf } from '#server/orders'
import type { namePlace } from '#server/places'
import { accounts, events, orders, people, technicians, vendorPasses, vendors, visits } from '../tables'
import { invitationText } from './invitation'

/**
 * What those who are sent, or were, are written: technicians and vendors, each with what their calendar takes. Of several
 * changes made in one act, each technician is written once, of all that concerns them.
 */
export const dispatchMails = {
  'order.dispatch': async (telling) => {
    await tellCrew(telling, crewLetters.dispatch)
    await tellVendor(telling, factsIn<{ visitId: number | null }>(telling).visitId ?? null)
  },
  'order.addVisit': (telling) => tellCrew(telling, crewLetters.addVisit),
  'order.moveVisit': async (telling) => {
    await tellCrew(telling, crewLetters.moveVisit)
    for (const { visit } of await visitsOf(telling)) if (visit.vendorId) await tellVendor(telling, visit.id)
  },
  'order.dropVisit': (telling) => tellCrew(telling, crewLetters.dropVisit),
  'order.recall': (telling) => tellCrew(telling, crewLetters.recall),
  'order.hold': (telling) => tellAllOff(telling, 'is on hold'),
  'order.resume': async (telling) => {
    const sent = await goingOf(telling, and(eq(visits.state, 'planned'), gt(visits.plannedEnd, telling.event.at)))
    await post(telling, await invitations(telling, sent, 'On again:'))
    for (const { visit } of sent) if (visit.vendorId) await tellVendor(telling, visit.id)
  },
  'order.cancel': (telling) => tellAllOff(telling, 'was called off'),
  'order.edit': async (telling) => {
    const to = telling.event.details?.fields?.priority?.to as Priority | undefined
    if (to) await noticeForCrew(telling, `is ${PRIORITY_NAMES[to]} now`)
  },
  'board.rearrange': tellTogether,
} satisfies Mails

/** What technicians are written of a change of their visits, by the kind of its event. */
const crewLetters = {
  dispatch: async (telling: Telling) => {
    const { technicianIds = [], visitIds } = factsIn<{ technicianIds: number[]; visitIds: number[] }>(telling)
    // Told late, it tells of the visits it made all the same; older events name the technicians alone.
    const theirs = visitIds ? inArray(visits.id, [0, ...visitIds]) : and(eq(visits.state, 'planned'), inArray(visits.technicianId, [0, ...technicianIds]))
    return invitations(telling, await goingOf(telling, theirs))
  },
  addVisit: async (telling: Telling) => invitations(telling, await visitsOf(telling)),
  moveVisit: async (telling: Telling) => {
    const { taken = [], fromStart, fromEnd } = factsIn<{ taken: number[]; fromStart: string; fromEnd: string }>(telling)
    const sent = await visitsOf(telling)
    const others = taken.length ? await technicianOf(telling, taken) : []
    const off = sent.flatMap((one) =>
      others.map((person) => ({ ...one, ...person, visit: { ...one.visit, plannedStart: new Date(fromStart!), plannedEnd: new Date(fromEnd!) } })),
    )
    return [
      ...(await cancellations(telling, off, 'is with somebody else now; do not go')),
      ...(await invitations(telling, sent, taken.length ? 'New job' : 'Another time for')),
    ]
  },
  dropVisit: async (telling: Telling) => cancellations(telling, await visitsOf(telling), 'is not yours any more; do not go'),
  recall: (telling: Telling) => lettersOff(telling, 'was taken back to the desk; do not go'),
}

/** One mail and one notice to somebody of one visit. */
interface Letter {
  occasion: 'job' | 'job_off'
  accountId: number | null
  to: string
  subject: string
  text: string
  calendar: string
  notice: string
}

async function post(telling: Telling, letters: readonly Letter[]): Promise<void> {
  const { actorId } = telling.event
  for (const { occasion, accountId, to, subject, text, calendar, notice: sentence } of letters) {
    await mail(telling, occasion, to, subject, text, { calendar })
    // Who takes a visit off themselves knows.
    if (accountId !== null && (occasion === 'job' || accountId !== actorId)) await notice(telling, [accountId], sentence)
  }
}

async function tellCrew(telling: Telling, lettersOf: (telling: Telling) => Promise<Letter[]>): Promise<void> {
  if (!factsIn<{ inOne: string }>(telling).inOne) await post(telling, await lettersOf(telling))
}

/** An act makes no more changes than this before its own event. */
const MOST_BEFORE = 2_000
/** Everybody concerned is told once of all that an act changed for them. */
async function tellTogether(telling: Telling): Promise<void> {
  const { tx, event } = telling
  const { act } = factsIn<{ act: string }>(telling)
  const near = await tx
    .select()
    .from(events)
    .where(and(gt(events.id, event.id - MOST_BEFORE), lt(events.id, event.id), eq(events.siteId, event.siteId!), eq(events.at, event.at)))
    .orderBy(events.id)
  const byPerson = new Map<string, Letter[]>()
  for (const row of near) {
    const part: Telling = { ...telling, event: { ...row, seq: row.seq ?? 0 } }
    if (!act || factsIn<{ inOne: string }>(part).inOne !== act) continue
    const lettersOf = crewLetters[row.kind.slice('order.'.length) as keyof typeof crewLetters]
    for (const letter of await lettersOf(part)) byPerson.set(letter.to, [...(byPerson.get(letter.to) ?? []), letter])
  }
  for (const letters of byPerson.values()) await post(telling, [letters.length > 1 ? joined(letters) : letters[0]!])
}

/** Beyond so many letters a mail names the visits alone; the rest stands in their calendar parts and on Rounds. */
const MOST_WORDS = 20_000
/** Several as one: what there is to go to first, then what there is not; calendars take each by itself. */
function joined(letters: readonly Letter[]): Letter {
  const inOrder = [...letters.filter(({ occasion }) => occasion === 'job'), ...letters.filter(({ occasion }) => occasion === 'job_off')]
  const [first] = inOrder
  const sentence = `Your plan has changed: ${letters.length} visits`
  const whole = letters.reduce((sum, { text }) => sum + text.length, 0) <= MOST_WORDS
  return {
    ...first!,
    subject: sentence,
    text: [`${sentence}.`, ...inOrder.map(({ subject, text }) => `\n— ${subject}${whole ? `\n\n${text}` : ''}`)].join('\n'),
    // In the order in which it happened, for what came later holds.
    calendar: letters.map(({ calendar }) => calendar).join(''),
    notice: `${sentence}. ${inOrder.map(({ notice: one }) => one).join('; ')}`,
  }
}

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
async function invitations(telling: Telling, sent: readonly Going[], what = 'New job'): Promise<Letter[]> {
  const ours = sent.filter(({ accountId }) => accountId !== null)
  if (!ours.length) return []
  const { order, site, place } = await orderOf(telling)
  return Promise.all(
    ours.map(async (one) => {
      const when = planWords(one.visit, site.zone)
      return {
        occasion: 'job' as const,
        accountId: one.accountId,
        to: one.email,
        subject: `${order.number} ${order.summary}, ${when}`,
        text: [...jobWords(order, place, when, site.zone), '', 'Open your Rounds:', `${telling.service.publicUrl()}/rounds`].join('\n'),
        calendar: await calendarOf(telling, 'REQUEST', one),
        notice: `${what} ${order.number}, ${when}: ${order.summary}`,
      }
    }),
  )
}

/** They do not go after all: their calendar is told as well. */
async function cancellations(telling: Telling, sent: readonly Going[], what: string): Promise<Letter[]> {
  if (!sent.length) return []
  const { order, site } = await orderOf(telling)
  return Promise.all(
    sent.map(async (one) => {
      const when = planWords(one.visit, site.zone)
      return {
        occasion: 'job_off' as const,
        accountId: one.accountId,
        to: one.email,
        subject: `${order.number} ${what.split(';')[0]}: ${order.summary}`,
        text: [`${order.number} ${what}.`, '', order.summary, `It was planned for ${when}.`, '', `${site.name}, ${site.deskPhone}`].join('\n'),
        calendar: await calendarOf(telling, 'CANCEL', one),
        notice: `${order.number} ${what}: ${order.summary}`,
      }
    }),
  )
}

/** Everybody who was to come is told, and whoever is there hears it as well. */
async function tellAllOff(telling: Telling, what: string): Promise<void> {
  await noticeForCrew(telling, what)
  // They have their notice already.
  await post(
    telling,
    (await lettersOff(telling, what)).map((letter) => ({ ...letter, accountId: null })),
  )
}
async function lettersOff(telling: Telling, what: string): Promise<Letter[]> {
  const { event } = telling
  const off = await goingOf(telling, eq(visits.state, event.kind === 'order.hold' ? 'planned' : 'recalled'))
  // Who declined knows, and is told of it by itself.
  const mine = off.filter(({ visit }) => visit.answer !== 'declined' && (event.kind === 'order.hold' || visit.endedAt?.getTime() === event.at.getTime()))
  return cancellations(telling, mine, what)
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
  await post(telling, await cancellations(telling, await goingOf(telling, eq(visits.id, visitId)), 'is not yours, since you declined it'))
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

/** Who sent somebody to an order last, and who leads it; nobody where neither works here any more. */
export async function whoSent(tx: Tx, order: { id: number; leadId: number | null }): Promise<{ id: number; email: string }[]> {
  const [sent] = await tx
    .select({ by: events.actorId })
    .from(events)
    .where(and(eq(events.orderId, order.id), eq(events.kind, 'order.dispatch')))
    .orderBy(desc(events.id))
    .limit(1)
  return tx
    .select({ id: accounts.id, email: accounts.email })
    .from(accounts)
    .where(and(inArray(accounts.id, [sent?.by ?? 0, order.leadId ?? 0]), isNull(accounts.disabledAt)))
}
