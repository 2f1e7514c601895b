import { and, eq, inArray, ne } from 'drizzle-orm'
import { DateTime } from 'luxon'
import { dayWords, PRIORITY_NAMES } from '#core/requests'
import type { Priority } from '#core/requests'
import type { PublishedEvent, Service, Subscriber } from '#server/kit'
import { namePlace } from '#server/places'
import { accounts, orders, technicians, vendorPasses, vendors, visits } from '../tables'
import { tellApprovers } from './approvers'
import { tellOfTarget } from './targets'
import { orderOf } from './orderOf'
import { noticeOfReporter, tellReporters } from './reporters'
import { mail, notice } from './telling'
import type { Telling } from './telling'
import { noticeOfUnable } from './unable'

type Writer = (tell: Telling) => Promise<void>

/** What follows from each kind of event: who is told, and in which words. */
const WRITERS: Record<string, Writer> = {
  'request.report': (telling) => tellReporters(telling, 'received', 'reporter'),
  'request.ask': (telling) => tellReporters(telling, 'question', 'reporter', ({ request }) => request.question ?? ''),
  'request.decline': async (telling) => {
    await tellReporters(telling, 'declined', 'reporter', ({ request }) => request.declineReason ?? '')
    await tellReporters(telling, 'called_off', 'others')
  },
  'request.message': (telling) => tellReporters(telling, 'message', 'reporter', ({ event }) => event.reason ?? ''),
  'request.follow': (telling) => tellReporters(telling, 'following', 'others', undefined, (telling.event.details as { email: string } | null)?.email),
  'request.undo': async (telling) => {
    const words = TAKEN_BACK[String(telling.event.details?.move)]
    // Those who follow were told that it was closed; of questions they never heard.
    if (words) await tellReporters(telling, 'message', telling.event.details?.move === 'decline' ? 'everybody' : 'reporter', () => words)
  },
  'request.heard': noticeOfReporter,
  'request.notFixed': noticeOfReporter,
  'order.check': (telling) => tellReporters(telling, 'done', 'everybody'),
  'order.cancel': (telling) => tellReporters(telling, 'called_off', 'everybody'),
  'order.submit': tellApprovers,
  'order.dispatch': async (telling) => {
    await tellTechnicians(telling)
    await tellVendor(telling)
    await tellReporters(telling, 'scheduled', 'everybody', ({ zone, event }) => {
      const start = (event.details as { start?: string } | null)?.start
      return start ? dayWords(new Date(start), event.at, zone) : 'one of the next days'
    })
  },
  'order.approve': async (telling) => {
    // Agreed to by one of several: those whose turn comes now are asked.
    if (telling.event.toState === 'to_approve') await tellApprovers(telling)
    else await noticeForDesk(telling, 'approved')
  },
  'order.handOver': tellApprovers,
  'setup.account': noticeOfUnable,
  'order.close_to': tellOfTarget,
  'order.past': tellOfTarget,
  'order.question': noticeOfQuestion,
  'order.sendBack': (telling) => noticeForDesk(telling, 'sent back'),
  'order.recall': (telling) => noticeForCrew(telling, 'was taken back to the desk; do not go'),
  'order.hold': (telling) => noticeForCrew(telling, 'is on hold'),
  'order.cancel.crew': (telling) => noticeForCrew(telling, 'was called off'),
  'order.edit': async (telling) => {
    const to = telling.event.details?.fields?.priority?.to as Priority | undefined
    if (to) await noticeForCrew(telling, `is ${PRIORITY_NAMES[to]} now`)
  },
}

/** What a reporter was told and is no longer so; they never heard of the other outcomes. */
const TAKEN_BACK: Record<string, string> = {
  decline: 'We closed your request too early. It is open again, and we are looking at it.',
  ask: 'You need not answer our question any more. We are looking at your request.',
}

/** Writes mails and notices in the publishing transaction, so that each is written exactly once. */
export function mailWriter(service: () => Service): Subscriber {
  return async (tx, event) => {
    await WRITERS[event.kind]?.({ tx, event, service: service() })
    if (event.kind === 'order.cancel') await WRITERS['order.cancel.crew']!({ tx, event, service: service() })
  }
}

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
      [...jobWords(order, place, when), '', 'Open your Rounds:', `${service.publicUrl()}/rounds`].join('\n'),
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
    ...jobWords(order, place, when),
    '',
    `Your pass to this job (until ${until}; it needs no account, so keep it to those who do the work):`,
    link,
    '',
    `${site.name}, ${site.deskPhone}`,
  ].join('\n')
  await mail(telling, 'pass', found.vendor.email, `${order.number} ${order.summary}, ${when}`, text)
}

function jobWords(order: typeof orders.$inferSelect, place: Awaited<ReturnType<typeof namePlace>>, when: string): string[] {
  const line = (name: string, value: string | null | undefined) => (value ? [`${name}: ${value}`] : [])
  return [
    order.summary,
    order.description,
    '',
    `When: ${when}`,
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
