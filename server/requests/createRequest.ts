import { and, eq, inArray, isNull } from 'drizzle-orm'
import { addWorkingTime, refuse } from '#core/kit'
import { CLOSE_SHARE } from '#core/orders'
import type { Service, Tx } from '#server/kit'
import { sha256 } from '#server/kit'
import { takeNumber } from '#server/orders'
import { attachments, people, places, requests, sites } from '../tables'

const LINK_DAYS = 400

export interface Report {
  channel: 'counter' | 'call'
  placeId: number
  summary: string
  description: string
  personId?: number | null
  name?: string
  email?: string
  phone?: string
  wish?: string
  photoClaims?: string[]
}

/** A new request, numbered, with its private link and its photos. */
export async function createRequest(tx: Tx, service: Service, site: typeof sites.$inferSelect, report: Report, now: Date) {
  const [place] = await tx
    .select()
    .from(places)
    .where(and(eq(places.id, report.placeId), eq(places.siteId, site.id)))
  if (!place) refuse('place_unknown', 'Choose a place from the list.', 'placeId')
  const email = report.email?.toLowerCase() || null
  const person = report.personId
    ? (
        await tx
          .select()
          .from(people)
          .where(and(eq(people.id, report.personId), eq(people.siteId, site.id)))
      )[0]
    : email
      ? (await tx.select().from(people).where(eq(people.email, email)))[0]
      : undefined
  if (report.personId && !person) refuse('person_unknown', 'Choose a person from the list.', 'personId')
  const photoIds = await claimedPhotos(tx, site.id, report.photoClaims ?? [])
  const link = service.links.fresh('request')
  const minutes = site.triageMinutes
  const number = await takeNumber(tx, site.id, 'request')
  const [saved] = await tx
    .insert(requests)
    .values({
      number,
      siteId: site.id,
      state: 'new',
      channel: report.channel,
      summary: report.summary,
      description: report.description,
      writtenSummary: report.summary,
      writtenDescription: report.description,
      reporterId: person?.id ?? null,
      reporterName: report.name || person?.name || null,
      reporterEmail: email ?? person?.email ?? null,
      reporterPhone: report.phone || person?.phone || null,
      placeId: place.id,
      payerId: person?.payerId ?? place.payerId ?? null,
      wish: report.wish || null,
      receivedAt: now,
      triageCloseAt: addWorkingTime(now, Math.round(minutes * CLOSE_SHARE), site.calendar),
      triageDueAt: addWorkingTime(now, minutes, site.calendar),
      linkHash: link.hash,
      linkNonce: link.nonce,
      linkExpiresAt: new Date(now.getTime() + LINK_DAYS * 86_400_000),
    })
    .$returningId()
  const id = saved!.id
  if (photoIds.length) await tx.update(attachments).set({ requestId: id, claimHash: null, shared: true }).where(inArray(attachments.id, photoIds))
  return { id, number, link: `${service.publicUrl()}/t/${link.token}` }
}

async function claimedPhotos(tx: Tx, siteId: number, claims: string[]): Promise<number[]> {
  if (!claims.length) return []
  const rows = await tx
    .select({ id: attachments.id })
    .from(attachments)
    .where(and(inArray(attachments.claimHash, claims.map(sha256)), eq(attachments.siteId, siteId), isNull(attachments.requestId)))
  if (rows.length !== claims.length) refuse('photo_gone', 'A photo is no longer here. Add it again.', 'photoClaims')
  return rows.map((row) => row.id)
}
