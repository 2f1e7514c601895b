import * as contract from '#contract/field'
import { refuseAdditions } from '#core/field'
import { readPicture } from '#server/kit'
import type { Picture } from '#server/kit'
import { signatures } from '../tables'
import { preparedJobCommand, sentPictureCommand } from './jobCommand'
import { keepPhoto } from './keepPhoto'
import type { OnSite } from './onSite'

export const addSignature = preparedJobCommand(
  contract.addSignature,
  ({ request }) => readPicture(request.file),
  (job) => signOn(job, job.input.name, job.ready),
)

export const addSentSignature = sentPictureCommand(contract.addSentSignature, (job) => signOn(job, job.input.name, job.ready))

/** Who is there signs, by name. */
export async function signOn({ tx, visit, order, at, tell }: OnSite, name: string, picture: Picture): Promise<void> {
  refuseAdditions(order.state)
  const attachmentId = await keepPhoto(tx, order, visit, picture, at, 'signature')
  await tx.insert(signatures).values({ orderId: order.id, visitId: visit.id, name, attachmentId, at })
  await tell({ kind: 'field.sign', siteId: order.siteId, orderId: order.id, visitId: visit.id, details: { name } })
}
