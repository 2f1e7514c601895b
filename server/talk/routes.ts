import * as contract from '#contract/talk'
import { jobCommand, preparedJobCommand, sentPictureCommand } from '#server/field'
import type { JobContext } from '#server/field'
import { command, maySee, notFound, preparedCommand, query, readPicture } from '#server/kit'
import type { Asker, Picture, Tx } from '#server/kit'
import { lockOrderById, seenOrder } from '#server/orders'
import type { OrderRecord } from '#server/orders'
import { deskTalk } from './records'
import { pictureSaid, sayOn } from './say'

export const readTalk = query(contract.readTalk, async ({ db, who, input }) => {
  const order = await seenOrder(db, who, input.orderId)
  return deskTalk(db, order.id, who.accountId)
})

async function locked(tx: Tx, who: Asker, id: number): Promise<OrderRecord> {
  const order = await lockOrderById(tx, id)
  if (!order || !maySee(who, order.siteId)) throw notFound('order')
  return order
}

export const sayOnOrder = command(contract.sayOnOrder, async ({ tx, who, input, now, tell }) => {
  const order = await locked(tx, who, input.orderId)
  const { mark, audience, text, visitId = null } = input
  await sayOn({ tx, order, speaker: 'desk', actor: who, at: now, tell }, { mark, audience, text, visitId: audience === 'vendor' ? visitId : null })
  return deskTalk(tx, order.id, who.accountId)
})

export const addTalkPhoto = preparedCommand(
  contract.addTalkPhoto,
  ({ request }) => readPicture(request.file),
  async ({ tx, who, input, now, tell, ready }) => {
    const order = await locked(tx, who, input.orderId)
    await pictureSaid({ tx, order, speaker: 'desk', actor: who, at: now, tell }, { mark: input.mark, visitId: null }, ready)
    return deskTalk(tx, order.id, who.accountId)
  },
  async ({ db, who, input }) => void (await seenOrder(db, who, input.orderId)),
)

export const sayOnJob = jobCommand(contract.sayOnJob, ({ tx, input, visit, order, actor, at, tell }) => {
  const { mark, audience, text } = input
  return sayOn({ tx, order, speaker: 'crew', actor, at, tell }, { mark, audience, text, visitId: visit.id })
})

const addPhoto = ({ tx, input, visit, order, actor, at, tell }: JobContext<{ mark: string }, unknown>, picture: Picture) =>
  pictureSaid({ tx, order, speaker: 'crew', actor, at, tell }, { mark: input.mark, visitId: visit.id }, picture)

export const addSaidPhoto = preparedJobCommand(
  contract.addSaidPhoto,
  ({ request }) => readPicture(request.file),
  (job) => addPhoto(job, job.ready),
)
export const addSentSaidPhoto = sentPictureCommand(contract.addSentSaidPhoto, (job) => addPhoto(job, job.ready))
