import { DateTime } from 'luxon'
import { and, eq, inArray, isNotNull } from 'drizzle-orm'
import { plainName, withoutLinks } from '#core/kit'
import { fillWording, USUAL_WORDINGS } from '#core/requests'
import type { Occasion, Placeholder, Wording } from '#core/requests'
import type { PublishedEvent, Reader } from '#server/kit'
import { ownWords } from '#server/own'
import { namePlace } from '#server/places'
import { accountRoles, followers, incomingMails, mailWordings, orders, requestOrders, requests, sites } from '../tables'
import { summaryForFollowers } from './tracked'
import { strangerMayBeMailed } from './strangerMail'
import { htmlOf } from '#server/kit'
import { mail, notice } from '#server/kit'
import type { Telling } from '#server/kit'

interface ReporterView {
  request: typeof requests.$inferSelect
  zone: string
  event: PublishedEvent
}

/** Somebody to write to about a request, each with a link of their own. */
interface Recipient {
  request: typeof requests.$inferSelect
  email: string
  name: string | null
  link: string
  /** The subject as this person may know it: their own words, or the desk’s. */
  summary: string
  followerId: number | null
}

/** The reporter themselves; those who told the same or follow, in threads of their own; or all of them. */
type Whom = 'reporter' | 'others' | 'everybody'

/** Mails every reporter an event concerns: of this request or the order's, those who joined them, and those who follow. */
export async function tellReporters(
  telling: Telling,
  occasion: Occasion,
  whom: Whom,
  words: (view: ReporterView) => string = () => '',
  only?: string,
): Promise<void> {
  const { tx, event } = telling
  const ids = event.requestId
    ? [event.requestId]
    : (await tx.select({ id: requestOrders.requestId }).from(requestOrders).where(eq(requestOrders.orderId, event.orderId!))).map((row) => row.id)
  if (!ids.length) return
  const [site] = await tx.select().from(sites).where(eq(sites.id, event.siteId!))
  const wording = await wordingOf(tx, site!.id, occasion)
  for (const recipient of await recipientsOf(telling, ids, whom)) {
    if (only && recipient.email !== only) continue
    const { request } = recipient
    if (occasion === 'received' && !(await strangerMayBeMailed(tx, event.at, 'received', recipient.email))) continue
    const values = await valuesFor(tx, site!, recipient, words({ request, zone: site!.zone, event }))
    const text = fillWording(wording.text, values)
    await mail(telling, occasion, recipient.email, fillWording(wording.subject, values), text, {
      html: htmlOf(text),
      from: site!.deskEmail,
      requestId: request.id,
      followerId: recipient.followerId,
      inReplyTo: await firstMailOf(tx, request.id),
    })
  }
}

/** The site's own words for an occasion, or the usual ones. */
export async function wordingOf(db: Reader, siteId: number, occasion: Occasion): Promise<Wording> {
  const [own] = await db
    .select()
    .from(mailWordings)
    .where(and(eq(mailWordings.siteId, siteId), eq(mailWordings.occasion, occasion)))
  return own ? { subject: own.subject, text: own.text } : USUAL_WORDINGS[occasion]
}

/** What the placeholders stand for in a mail to this person. */
export async function valuesFor(
  db: Reader,
  site: typeof sites.$inferSelect,
  { request, name, link, summary }: Pick<Recipient, 'request' | 'name' | 'link' | 'summary'>,
  words: string,
): Promise<Record<Placeholder, string> & Record<string, string>> {
  const [place, own] = await Promise.all([
    namePlace(db, request.placeId),
    ownWords(db, 'requests', request.id, (day) => DateTime.fromISO(day).toFormat('d LLLL yyyy')),
  ])
  return {
    ...own,
    // What strangers typed goes out as one line without links: our mail is not theirs to send.
    name: plainName(name ?? ''),
    number: request.number,
    summary: withoutLinks(summary),
    place: place ? [place.name, place.within].filter(Boolean).join(', ') : '',
    words,
    link,
    site: site.name,
    phone: site.deskPhone,
  }
}

async function recipientsOf({ tx, service }: Telling, requestIds: number[], whom: Whom): Promise<Recipient[]> {
  const own = await tx.select().from(requests).where(inArray(requests.id, requestIds))
  const joined = whom !== 'reporter' ? await tx.select().from(requests).where(inArray(requests.joinedToId, requestIds)) : []
  const mains = [...own, ...joined]
  const following =
    whom !== 'reporter' && mains.length
      ? await tx
          .select()
          .from(followers)
          .where(
            and(
              isNotNull(followers.confirmedAt),
              inArray(
                followers.requestId,
                mains.map((row) => row.id),
              ),
            ),
          )
      : []
  const at = (link: string) => `${service.publicUrl()}/t/${link}`
  const all = [
    ...(whom === 'others' ? joined : mains).flatMap((request): Recipient[] =>
      request.reporterEmail
        ? [
            {
              request,
              email: request.reporterEmail,
              name: request.reporterName,
              link: at(service.links.again('request', request.linkNonce)),
              summary: request.writtenSummary,
              followerId: null,
            },
          ]
        : [],
    ),
    ...following.map((row): Recipient => {
      const request = mains.find((one) => one.id === row.requestId)!
      const summary = summaryForFollowers(request)
      return { request, email: row.email, name: row.name, link: at(service.links.again('follow', row.linkNonce)), summary, followerId: row.id }
    }),
  ]
  return all.filter((one, index) => all.findIndex((other) => other.email === one.email && other.request.id === one.request.id) === index)
}

/** The mail a request was made of: answers stand under it in the reporter's mail program. */
async function firstMailOf(db: Reader, requestId: number): Promise<string | null> {
  const [first] = await db
    .select({ key: incomingMails.messageId })
    .from(incomingMails)
    .where(and(eq(incomingMails.requestId, requestId), eq(incomingMails.state, 'request')))
  return first?.key ?? null
}

/** Those at the desk who have to do with a request hear that its reporter wrote. */
export async function noticeOfReporter(telling: Telling): Promise<void> {
  const { tx, event } = telling
  const [request] = await tx.select().from(requests).where(eq(requests.id, event.requestId!))
  const leads = await tx
    .select({ leadId: orders.leadId })
    .from(requestOrders)
    .innerJoin(orders, eq(orders.id, requestOrders.orderId))
    .where(eq(requestOrders.requestId, request!.id))
  const known = [request!.takenUpBy, ...leads.map((row) => row.leadId)].filter((id) => id !== null)
  const desk = known.length
    ? known
    : (await tx.select({ id: accountRoles.accountId }).from(accountRoles).where(eq(accountRoles.role, 'coordinator'))).map((row) => row.id)
  const what = event.kind === 'request.notFixed' ? 'says that it is not fixed' : 'wrote'
  await notice(telling, desk, `${event.actorName} ${what} (${request!.number}): ${event.reason ?? request!.summary}`)
}
