import * as contract from '#contract/field'
import { refuseAdditions } from '#core/field'
import type { PhotoStage } from '#core/field'
import { readPicture } from '#server/kit'
import type { Picture } from '#server/kit'
import { preparedJobCommand, sentPictureCommand } from './jobCommand'
import type { JobContext } from './jobCommand'
import { keepPhoto } from './keepPhoto'

export const addJobPhoto = preparedJobCommand(contract.addJobPhoto, ({ request }) => readPicture(request.file), addPhoto)

export const addSentPhoto = sentPictureCommand(contract.addSentPhoto, addPhoto)

async function addPhoto({ tx, input, visit, order, at, ready, tell }: JobContext<{ stage?: PhotoStage }, Picture>): Promise<void> {
  refuseAdditions(order.state)
  const { stage } = input
  await keepPhoto(tx, order, visit, ready, at, stage)
  await tell({ kind: 'field.photo', siteId: order.siteId, orderId: order.id, visitId: visit.id, details: stage ? { stage } : undefined })
}
