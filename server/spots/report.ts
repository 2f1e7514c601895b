import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/spots'
import { momentFor } from '#server/field'
import { refuse } from '#core/kit'
import { isUndecided } from '#core/requests'
import { asRequest } from '#core/spots'
import { command, keepAttachment, notFound, preparedCommand, readPicture, recordEvent } from '#server/kit'
import type { Actor, Asker, Picture, Reader, Service, Tx } from '#server/kit'
import { createRequest, lockRequestById, noteOn } from '#server/requests'
import { dropUpload, readUpload } from '#server/uploads'
import { requestOrders, requests, spotReports } from '../tables'
import { siteOf, spotOf } from './where'
import type { SiteRecord, Where } from './where'

interface Reported extends Where {
  mark: string
  text: string
  asker?: string
  askerEmail?: string
}

/** A request of what was seen or told in passing, under the name the phone gave it. @throws Refusal when it is known already */
export async function requestHere(
  { tx, service, site, actor, at }: { tx: Tx; service: Service; site: SiteRecord; actor: Actor; at: Date },
  { mark, text, asker, askerEmail, ...where }: Reported,
): Promise<{ id: number; number: string }> {
  const spot = await spotOf(tx, site, where)
  const unknown = spot ? null : where.code || (where.placeId || where.assetId ? 'no longer in use' : null)
  const { id, number } = await createRequest(
    tx,
    service,
    site,
    {
      channel: 'field',
      placeId: spot?.place.id ?? null,
      assetId: spot?.asset?.id ?? null,
      ...asRequest(text, unknown),
      name: asker || actor.name,
      email: askerEmail || undefined,
    },
    at,
  )
  const [kept] = await tx.select({ mark: spotReports.mark }).from(spotReports).where(eq(spotReports.mark, mark)).for('update')
  if (kept) refuse('report_known', 'This is reported already.', 'mark')
  await tx.insert(spotReports).values({ mark, requestId: id, accountId: actor.accountId! })
  await recordEvent(tx, actor, at, { kind: 'request.report', siteId: site.id, requestId: id, to: 'new', details: { channel: 'field' } })
  return { id, number }
}

export const reportHere = command(contract.reportHere, async ({ tx, who, input, now, service }) => {
  const site = await siteOf(tx, who)
  const { number } = await requestHere({ tx, service, site, ...momentFor(who, input.happenedAt, now) }, input)
  return { number }
})

/** @throws ProblemReply 404 for what somebody else reported */
async function mineByMark(db: Reader, who: Asker, mark: string): Promise<typeof requests.$inferSelect> {
  const [found] = await db
    .select({ request: requests })
    .from(spotReports)
    .innerJoin(requests, eq(requests.id, spotReports.requestId))
    .where(and(eq(spotReports.mark, mark), eq(spotReports.accountId, who.accountId ?? 0)))
  if (!found) throw notFound('report')
  return found.request
}

async function keepPicture(tx: Tx, who: Asker, mark: string, { content, mime, width, height, thumb }: Picture, at: Date): Promise<{ number: string }> {
  const { id, number, siteId } = await mineByMark(tx, who, mark)
  const [answered] = await tx.select({ orderId: requestOrders.orderId }).from(requestOrders).where(eq(requestOrders.requestId, id)).limit(1)
  const hangs = { siteId, requestId: id, orderId: answered?.orderId ?? null }
  await keepAttachment(tx, { ...hangs, name: 'photo.jpg', mime, width, height, bytes: content.length, content, thumb, at })
  return { number }
}

export const addReportPhoto = preparedCommand(
  contract.addReportPhoto,
  ({ request }) => readPicture(request.file),
  async ({ tx, who, input, now, ready }) => keepPicture(tx, who, input.mark, ready, momentFor(who, input.happenedAt, now).at),
  async ({ db, who, input }) => void (await mineByMark(db, who, input.mark)),
)

export const addSentReportPhoto = preparedCommand(
  contract.addSentReportPhoto,
  async ({ service, who, input }) => {
    const sent = await readUpload(service.db, who, input)
    return sent && readPicture(sent)
  },
  async ({ tx, who, input, now, ready }) => {
    if (!ready) refuse('upload_gone', 'The picture is not there any more. Send it again.', 'upload')
    const kept = await keepPicture(tx, who, input.mark, ready, momentFor(who, input.happenedAt, now).at)
    await dropUpload(tx, input.upload)
    return kept
  },
)

/** What is known already was asked for once more: the desk reads it beside the request. */
export const askedAgain = command(contract.askedAgain, async ({ tx, who, input, now, tell }) => {
  const request = await lockRequestById(tx, who, input.requestId)
  if (!isUndecided(request.state) && request.state !== 'accepted') refuse('decided', 'It is closed: report it anew.')
  await noteOn(tx, who, request, ['Asked for again on the spot.', input.text?.trim()].filter(Boolean).join(' '), now, tell)
  return { number: request.number }
})
