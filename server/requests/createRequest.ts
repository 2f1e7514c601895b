import { and, eq } from 'drizzle-orm'
import { addWorkingTime, refuse } from '#core/kit'
import { CLOSE_SHARE } from '#core/orders'
import type { Answers, Channel } from '#core/requests'
import { mustKnow, takeNumber } from '#server/kit'
import type { Service, Tx } from '#server/kit'
import { assets, people, places, requests } from '../tables'
import type { SentBySystem } from '../tables'
import { checkAnswers } from './categoryForms'
import { attachClaimed } from './keepFile'
import type { SiteRecord } from './siteByCode'

const LINK_DAYS = 400

export interface Report {
  channel: Channel
  /** Mail and other systems may not say where; the desk asks. */
  placeId: number | null
  assetId?: number | null
  summary: string
  description: string
  categoryId?: number | null
  formId?: number | null
  answers?: Answers
  payerId?: number | null
  personId?: number | null
  name?: string
  email?: string
  phone?: string
  wish?: string
  outsideReference?: string
  sentBy?: SentBySystem
  apiKeyId?: number
  repeatsId?: number
  fileClaims?: string[]
}

/** A new request, numbered, with its private link, its answers and its files. */
export async function createRequest(tx: Tx, service: Service, site: SiteRecord, report: Report, now: Date) {
  const place = report.placeId ? await placeHere(tx, site.id, report.placeId) : null
  const asset = report.assetId ? await assetHere(tx, site.id, report.assetId) : null
  const email = report.email?.toLowerCase() || null
  const person = await reporterOf(tx, report.personId ?? null, email)
  await mustKnow(tx, { siteId: site.id, who: { siteIds: [site.id] } }, { categoryId: ['category', report.categoryId], payerId: ['payer', report.payerId] })
  const { formId, answers } = await checkAnswers(tx, report.categoryId ?? null, report.formId ?? null, report.answers ?? {})
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
      placeId: place?.id ?? asset?.placeId ?? null,
      assetId: asset?.id ?? null,
      categoryId: report.categoryId ?? null,
      formId,
      answers,
      payerId: report.payerId ?? asset?.payerId ?? person?.payerId ?? place?.payerId ?? null,
      wish: report.wish || null,
      outsideReference: report.outsideReference || null,
      sentBy: report.sentBy ?? null,
      apiKeyId: report.apiKeyId ?? null,
      repeatsId: report.repeatsId ?? null,
      receivedAt: now,
      triageCloseAt: addWorkingTime(now, Math.round(minutes * CLOSE_SHARE), site.calendar),
      triageDueAt: addWorkingTime(now, minutes, site.calendar),
      linkHash: link.hash,
      linkNonce: link.nonce,
      linkExpiresAt: new Date(now.getTime() + LINK_DAYS * 86_400_000),
    })
    .$returningId()
  const id = saved!.id
  await attachClaimed(tx, site.id, report.fileClaims ?? [], { requestId: id })
  return { id, number, link: `${service.publicUrl()}/t/${link.token}` }
}

async function placeHere(tx: Tx, siteId: number, placeId: number) {
  const [place] = await tx
    .select()
    .from(places)
    .where(and(eq(places.id, placeId), eq(places.siteId, siteId)))
  if (!place) refuse('place_unknown', 'Choose a place from the list.', 'placeId')
  return place
}

async function assetHere(tx: Tx, siteId: number, assetId: number) {
  const [asset] = await tx
    .select()
    .from(assets)
    .where(and(eq(assets.id, assetId), eq(assets.siteId, siteId)))
  if (!asset) refuse('asset_unknown', 'Choose an asset from the list.', 'assetId')
  return asset
}

/** The person chosen, whoever takes the report has checked whom they may choose, or the one whose mail address it is. */
async function reporterOf(tx: Tx, personId: number | null, email: string | null) {
  if (personId) {
    const [person] = await tx.select().from(people).where(eq(people.id, personId))
    if (!person) refuse('person_unknown', 'Choose a person from the list.', 'personId')
    return person
  }
  return email ? (await tx.select().from(people).where(eq(people.email, email)))[0] : undefined
}
