import * as contract from '#contract/field'
import { refuseAdditions } from '#core/field'
import { readPicture } from '#server/kit'
import type { Picture } from '#server/kit'
import { signatures } from '../tables'
import { preparedJobCommand, sentPictureCommand } from './jobCommand'
import type { JobContext } from './jobCommand'
import { keepPhoto } from './keepPhoto'

export const addSignature = preparedJobCommand(contract.addSignature, ({ request }) => readPicture(request.file), sign)

export const addSentSignature = sentPictureCommand(contract.addSentSignature, sign)

async function sign({ tx, input, visit, order, at, ready, tell }: JobContext<{ name: string }, Picture>): Promise<void> {
  refuseAdditions(order.state)
  const attachmentId = await keepPhoto(tx, order, visit, ready, at, 'signature')
  await tx.insert(signatures).values({ orderId: order.id, visitId: visit.id, name: input.name, attachmentId, at })
  await tell({ kind: 'field.sign', siteId: order.siteId, orderId: order.id, visitId: visit.id, details: { name: input.name } })
}
