import * as contract from '#contract/field'
import { refuseAdditions } from '#core/field'
import type { PhotoStage } from '#core/field'
import { refuse } from '#core/kit'
import { readPicture } from '#server/kit'
import type { Picture } from '#server/kit'
import { dropUpload, readUpload } from '#server/uploads'
import { preparedJobCommand } from './jobCommand'
import type { JobContext } from './jobCommand'
import { keepPhoto } from './keepPhoto'

export const addJobPhoto = preparedJobCommand(contract.addJobPhoto, ({ request }) => readPicture(request.file), addPhoto)

/** One that was sent in pieces before. What it was is gone once it was taken, and a repeat is answered without it. */
export const addSentPhoto = preparedJobCommand(
  contract.addSentPhoto,
  async ({ service, who, input }) => {
    const sent = await readUpload(service.db, who, input)
    return sent && readPicture(sent)
  },
  async ({ ready, ...adding }) => {
    if (!ready) refuse('upload_gone', 'The photo is not there any more. Send it again.', 'upload')
    await addPhoto({ ...adding, ready })
    await dropUpload(adding.tx, adding.input.upload)
  },
)

async function addPhoto({ tx, input, visit, order, at, ready, tell }: JobContext<{ stage?: PhotoStage }, Picture>): Promise<void> {
  refuseAdditions(order.state)
  const { stage } = input
  await keepPhoto(tx, order, visit, ready, at, stage)
  await tell({ kind: 'field.photo', siteId: order.siteId, orderId: order.id, visitId: visit.id, details: stage ? { stage } : undefined })
}
