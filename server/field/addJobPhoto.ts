import * as contract from '#contract/field'
import { refuseAdditions } from '#core/field'
import type { PhotoStage } from '#core/field'
import { readPicture } from '#server/kit'
import type { Picture } from '#server/kit'
import { preparedJobCommand, sentPictureCommand } from './jobCommand'
import { keepPhoto } from './keepPhoto'
import type { OnSite } from './onSite'

export const addJobPhoto = preparedJobCommand(
  contract.addJobPhoto,
  ({ request }) => readPicture(request.file),
  (job) => addPhotoOn(job, job.input.stage, job.ready),
)

export const addSentPhoto = sentPictureCommand(contract.addSentPhoto, (job) => addPhotoOn(job, job.input.stage, job.ready))

/** @param stage what it shows: how it was found, or how it is left */
export async function addPhotoOn({ tx, visit, order, at, tell }: OnSite, stage: PhotoStage | undefined, picture: Picture): Promise<void> {
  refuseAdditions(order.state)
  await keepPhoto(tx, order, visit, picture, at, stage)
  await tell({ kind: 'field.photo', siteId: order.siteId, orderId: order.id, visitId: visit.id, details: stage ? { stage } : undefined })
}
