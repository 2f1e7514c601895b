import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/findings'
import type { NewFinding } from '#contract/findings'
import { refuseAdditions } from '#core/field'
import { mayTakeBack } from '#core/findings'
import { refuse } from '#core/kit'
import { jobCommand, keepPhoto, preparedJobCommand, sentPictureCommand } from '#server/field'
import type { OnSite } from '#server/field'
import { mustKnow, notFound, readPicture } from '#server/kit'
import type { Asker, Picture, Tx } from '#server/kit'
import { assets, findingPhotos, findings, orderSteps, places } from '../tables'
import { factsOfFinding, findingsWhere, whereFound } from './records'
import type { FoundRow } from './records'

export const addFinding = jobCommand(contract.addFinding, (job) => addFindingOn(job, job.who, job.input))

/** @param who may name places of their sites */
export async function addFindingOn(job: OnSite, who: Pick<Asker, 'siteIds'>, input: NewFinding & { mark: string }): Promise<void> {
  const { tx, visit, order, at, actor } = job
  refuseAdditions(order.state)
  const { mark, text, severity, fixedNow, stepId, pin } = input
  await mustKnow(tx, { siteId: order.siteId, who }, { placeId: ['place', input.placeId], assetId: ['asset', input.assetId] })
  await mustBeStep(tx, order.id, stepId)
  await mustBePlan(tx, order.siteId, pin)
  const [saved] = await tx
    .insert(findings)
    .ignore()
    .values({
      ...{ siteId: order.siteId, orderId: order.id, visitId: visit.id, mark, text, severity, fixedNow, stepId: stepId ?? null, at },
      ...(await placed(tx, input, order)),
      ...{ planId: pin?.planId ?? null, east: pin?.at[0] ?? null, north: pin?.at[1] ?? null },
      foundBy: actor.name,
    })
    .$returningId()
  if (!saved?.id) refuse('finding_known', 'This finding is recorded already.', 'mark')
  await tellOf(job, 'finding.add', await oneMine(tx, visit.id, mark))
}

/** Where it is: as it was said, or else where the job is. What is known of an asset is known of its place. */
async function placed(tx: Tx, { placeId, assetId }: Pick<NewFinding, 'placeId' | 'assetId'>, order: OnSite['order']) {
  if (assetId === undefined) return placeId === undefined ? { placeId: order.placeId, assetId: order.assetId } : { placeId, assetId: null }
  const [asset] = await tx.select({ placeId: assets.placeId }).from(assets).where(eq(assets.id, assetId))
  return { placeId: asset!.placeId, assetId }
}

async function mustBeStep(tx: Tx, orderId: number, stepId: number | undefined): Promise<void> {
  if (stepId === undefined) return
  const [step] = await tx
    .select({ id: orderSteps.id })
    .from(orderSteps)
    .where(and(eq(orderSteps.id, stepId), eq(orderSteps.orderId, orderId)))
  if (!step) refuse('step_unknown', 'The step is not there any more. Record the finding without it.', 'stepId')
}

async function mustBePlan(tx: Tx, siteId: number, pin: NewFinding['pin']): Promise<void> {
  if (!pin) return
  const [plan] = await tx
    .select({ id: places.id })
    .from(places)
    .where(and(eq(places.id, pin.planId), eq(places.siteId, siteId)))
  if (!plan) refuse('plan_unknown', 'That plan is not there any more. Record the finding without the pin.', 'pin')
}

export const addFindingPhoto = preparedJobCommand(
  contract.addFindingPhoto,
  ({ request }) => readPicture(request.file),
  (job) => addFindingPhotoOn(job, job.input.mark, job.ready),
)

export const addSentFindingPhoto = sentPictureCommand(contract.addSentFindingPhoto, (job) => addFindingPhotoOn(job, job.input.mark, job.ready))

export async function addFindingPhotoOn(job: OnSite, mark: string, picture: Picture): Promise<void> {
  const { tx, visit, order, at } = job
  refuseAdditions(order.state)
  const row = await oneMine(tx, visit.id, mark)
  const attachmentId = await keepPhoto(tx, order, visit, picture, at)
  await tx.insert(findingPhotos).values({ findingId: row.finding.id, attachmentId })
  await tellOf(job, 'finding.photo', row)
}

export const takeBackFinding = jobCommand(contract.takeBackFinding, (job) => takeBackFindingOn(job, job.input.mark))

/** Its photos stay with the job: what was seen was seen. */
export async function takeBackFindingOn(job: OnSite, mark: string): Promise<void> {
  const { tx, visit } = job
  const row = await oneMine(tx, visit.id, mark)
  if (!mayTakeBack(factsOfFinding(row))) refuse('finding_decided', 'The desk has decided about it already. Call the desk.', 'mark')
  await tellOf(job, 'finding.takeBack', row)
  await tx.delete(findings).where(eq(findings.id, row.finding.id))
}

/** @throws ProblemReply 404 for one that was not recorded on this visit */
async function oneMine(tx: Tx, visitId: number, mark: string): Promise<FoundRow> {
  const [row] = await findingsWhere(tx, and(eq(findings.visitId, visitId), eq(findings.mark, mark)))
  if (!row) throw notFound('finding')
  return row
}

const tellOf = (
  { tell, order, visit }: Pick<OnSite, 'tell' | 'order' | 'visit'>,
  kind: 'finding.add' | 'finding.photo' | 'finding.takeBack',
  row: FoundRow,
) => {
  const { text, severity, fixedNow } = row.finding
  return tell({ kind, siteId: order.siteId, orderId: order.id, visitId: visit.id, details: { text, severity, fixedNow, where: whereFound(row) } })
}
