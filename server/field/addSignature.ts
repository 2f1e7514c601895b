import * as contract from '#contract/field'
import { refuseAdditions } from '#core/field'
import { refuse } from '#core/kit'
import { readPicture } from '#server/kit'
import type { Picture } from '#server/kit'
import { dropUpload, readUpload } from '#server/uploads'
import { signatures } from '../tables'
import { preparedJobCommand } from './jobCommand'
import type { JobContext } from './jobCommand'
import { keepPhoto } from './keepPhoto'

export const addSignature = preparedJobCommand(contract.addSignature, ({ request }) => readPicture(request.file), sign)

/** One that was sent in pieces before. */
export const addSentSignature = preparedJobCommand(
  contract.addSentSignature,
  async ({ service, who, input }) => {
    const sent = await readUpload(service.db, who, input)
    return sent && readPicture(sent)
  },
  async ({ ready, ...signing }) => {
    if (!ready) refuse('upload_gone', 'The signature is not there any more. Have it signed again.', 'upload')
    await sign({ ...signing, ready })
    await dropUpload(signing.tx, signing.input.upload)
  },
)

async function sign({ tx, input, visit, order, at, ready, tell }: JobContext<{ name: string }, Picture>): Promise<void> {
  refuseAdditions(order.state)
  const attachmentId = await keepPhoto(tx, order, visit, ready, at, 'signature')
  await tx.insert(signatures).values({ orderId: order.id, visitId: visit.id, name: input.name, attachmentId, at })
  await tell({ kind: 'field.sign', siteId: order.siteId, orderId: order.id, visitId: visit.id, details: { name: input.name } })
}
