import { and, desc, eq, gte, inArray, isNull, lte, gt } from 'drizzle-orm'
import { DateTime } from 'luxon'
import { formatMinor } from '#core/kit'
import { dayWords, PRIORITY_NAMES } from '#core/requests'
import type { Priority } from '#core/requests'
import type { PublishedEvent, Service, Subscriber } from '#server/kit'
import { namePlace } from '#server/places'
import {
  accountRoles,
  accounts,
  approvalLinks,
  approvals,
  deputies,
  orders,
  orderShares,
  payers,
  sites,
  technicians,
  vendorPasses,
  vendors,
  visits,
} from '../tables'
import { noticeOfReporter, tellReporters } from './reporters'
import { mail, notice } from './telling'
import type { Telling } from './telling'

type Writer = (tell: Telling) => Promise<void>

/** What follows from each kind of event: who is told, and in which words. */
const WRITERS: Record<string, Writer> = {
  'request.report': (telling) => tellReporters(telling, 'received'),
  'request.ask': (telling) => tellReporters(telling, 'question', ({ request }) => request.question ?? ''),
  'request.decline': (telling) => tellReporters(telling, 'declined', ({ request }) => request.declineReason ?? ''),
  'request.message': (telling) => tellReporters(telling, 'message', ({ event }) => event.reason ?? ''),
  'request.follow': (telling) => tellReporters(telling, 'following', undefined, (telling.event.details as { email: string } | null)?.email),
  'request.heard': noticeOfReporter,
  'request.notFixed': noticeOfReporter,
  'order.check': (telling) => tellReporters(telling, 'done'),
  'order.cancel': (telling) => tellReporters(telling, 'called_off'),
  'order.submit': tellApprovers,
  'order.dispatch': async (telling) => {
    await tellTechnicians(telling)
    await tellVendor(telling)
    await tellReporters(telling, 'scheduled', ({ zone, event }) => {
      const start = (event.details as { start?: string } | null)?.start
      return start ? dayWords(new Date(start), event.at, zone) : 'one of the next days'
    })
  },
  'order.approve': (telling) => noticeForDesk(telling, 'approved'),
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

/** Writes mails and notices in the publishing transaction, so that each is written exactly once. */
export function mailWriter(service: () => Service): Subscriber {
  return async (tx, batch) => {
    for (const event of batch) {
      await WRITERS[event.kind]?.({ tx, event, service: service() })
      if (event.kind === 'order.cancel') await WRITERS['order.cancel.crew']!({ tx, event, service: service() })
    }
  }
}

async function orderOf({ tx, event }: Telling) {
  const [found] = await tx
    .select({ order: orders, site: sites })
    .from(orders)
    .innerJoin(sites, eq(sites.id, orders.siteId))
    .where(eq(orders.id, event.orderId!))
  return { ...found!, place: await namePlace(tx, found!.order.placeId) }
}

/** Those whose limit covers the estimate, and the deputies of those who are away. */
async function tellApprovers(telling: Telling): Promise<void> {
  const { tx, event, service } = telling
  const { order, site, place } = await orderOf(telling)
  const covering = await tx
    .select({ id: accounts.id })
    .from(accounts)
    .innerJoin(accountRoles, eq(accountRoles.accountId, accounts.id))
    .where(and(eq(accountRoles.role, 'approver'), isNull(accounts.disabledAt), gte(accounts.approvalLimitMinor, order.estimateMinor ?? 0)))
  const ids = covering.map((row) => row.id)
  const standIns = ids.length
    ? await tx
        .select({ id: deputies.deputyAccountId })
        .from(deputies)
        .where(and(inArray(deputies.forAccountId, ids), lte(deputies.fromAt, event.at), gt(deputies.untilAt, event.at)))
    : []
  const everybody = [...new Set([...ids, ...standIns.map((row) => row.id)])]
  if (!everybody.length) return
  const shares = await tx
    .select({ code: payers.code, name: payers.name, shareBp: orderShares.shareBp })
    .from(orderShares)
    .innerJoin(payers, eq(payers.id, orderShares.payerId))
    .where(eq(orderShares.orderId, order.id))
    .orderBy(orderShares.position)
  const [approval] = await tx
    .select()
    .from(approvals)
    .where(and(eq(approvals.orderId, order.id), isNull(approvals.decidedAt)))
    .orderBy(desc(approvals.id))
    .limit(1)
  const addresses = await tx.select({ id: accounts.id, email: accounts.email }).from(accounts).where(inArray(accounts.id, everybody))
  const text = [
    `${event.actorName} asks you to approve ${order.number}.`,
    '',
    order.summary,
    order.description,
    '',
    `Where: ${place ? [place.name, place.within].filter(Boolean).join(', ') : 'not given'}`,
    `Why this priority: ${order.prioritySentence ?? ''}`,
    `Estimate: ${formatMinor(order.estimateMinor ?? 0)} ${site.currency}`,
    `Who pays: ${shares.map((share) => `${share.code} ${share.name} ${share.shareBp / 100} %`).join(', ')}`,
    '',
    'At the desk:',
    `${service.publicUrl()}/desk/planning/order/${order.id}`,
  ]
  for (const { id, email } of addresses) {
    // Decided before the mail was written: there is nothing to decide by link.
    const link = approval ? await linkTo(telling, approval.id, id) : null
    const own = link ? ['', 'Decide on your phone, without signing in. The link is yours alone and works once:', link] : []
    await mail(telling, 'approve', email, `To approve: ${order.number} ${order.summary}`, [...text, ...own].join('\n'))
  }
  await notice(telling, everybody, `${order.number} waits for your approval: ${order.summary}`)
}

const LINK_DAYS = 7

/** The link by which this person decides this question. */
async function linkTo({ tx, event, service }: Telling, approvalId: number, accountId: number): Promise<string> {
  const { token, nonce, hash } = service.links.fresh('approval')
  await tx
    .insert(approvalLinks)
    .values({ approvalId, accountId, nonce, tokenHash: hash, createdAt: event.at, expiresAt: new Date(event.at.getTime() + LINK_DAYS * 86_400_000) })
    .onDuplicateKeyUpdate({ set: { nonce, tokenHash: hash } })
  return `${service.publicUrl()}/a/${token}`
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
    .where(and(eq(visits.orderId, event.orderId!), inArray(visits.state, ['planned', 'on_site', 'recalled'])))
  await notice(
    telling,
    crew.map((row) => row.accountId).filter((id) => id !== event.actorId),
    `${order.number} ${what}: ${order.summary}`,
  )
}
