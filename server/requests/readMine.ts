import { and, desc, eq, gt, inArray, isNotNull, or } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { notFound, query, sha256 } from '#server/kit'
import { namePlace } from '#server/places'
import { followers, reporterLinks, requests, sites } from '../tables'
import { contactOf } from './siteByCode'
import { ordersAnswering, progressIn, summaryForFollowers } from './tracked'

const MOST = 100

export default query(contract.readMine, async ({ db, input, service, now }) => {
  const [link] = await db
    .select({ link: reporterLinks, site: sites })
    .from(reporterLinks)
    .innerJoin(sites, eq(sites.id, reporterLinks.siteId))
    .where(and(eq(reporterLinks.tokenHash, sha256(input.token)), gt(reporterLinks.expiresAt, now)))
  if (!link) throw notFound('link')
  const { email } = link.link
  const followed = await db
    .select()
    .from(followers)
    .where(and(eq(followers.email, email), isNotNull(followers.confirmedAt)))
  const rows = await db
    .select({ request: requests, zone: sites.zone })
    .from(requests)
    .innerJoin(sites, eq(sites.id, requests.siteId))
    .where(
      or(
        eq(requests.reporterEmail, email),
        followed.length
          ? inArray(
              requests.id,
              followed.map((row) => row.requestId),
            )
          : undefined,
      ),
    )
    .orderBy(desc(requests.receivedAt))
    .limit(MOST)
  const mains = rows.map(({ request }) => request.joinedToId ?? request.id)
  const linked = await ordersAnswering(db, mains)
  const joined = rows.flatMap(({ request }) => (request.joinedToId ? [request.joinedToId] : []))
  const others = joined.length ? await db.select().from(requests).where(inArray(requests.id, joined)) : []
  const mine = await Promise.all(
    rows.map(async ({ request, zone }) => {
      const own = request.reporterEmail === email
      const following = followed.find((row) => row.requestId === request.id)
      const main = others.find((one) => one.id === request.joinedToId) ?? request
      const token = own ? service.links.again('request', request.linkNonce) : service.links.again('follow', following!.linkNonce)
      return {
        number: request.number,
        summary: own ? request.writtenSummary : summaryForFollowers(request),
        place: (await namePlace(db, request.placeId))?.name ?? null,
        receivedAt: request.receivedAt,
        progress: await progressIn(
          db,
          main,
          linked.filter((order) => order.requestId === main.id),
          zone,
          now,
          own && !request.joinedToId,
        ),
        link: `/t/${token}`,
      }
    }),
  )
  const steps = [...new Set(mine.map((row) => row.progress.step))]
  return {
    email,
    site: contactOf(link.site),
    rows: mine,
    counts: steps.map((step) => ({ step, count: mine.filter((row) => row.progress.step === step).length })),
  }
})
