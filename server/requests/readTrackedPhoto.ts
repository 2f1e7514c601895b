import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { delivery, notFound } from '#server/kit'
import { sendPicture } from '#server/orders'
import { attachments } from '../tables'
import { requestByLink } from './tracked'

export default delivery(contract.readTrackedPhoto, async ({ db, input, now, response }) => {
  const { request } = await requestByLink(db, input.token, now)
  const [file] = await db
    .select()
    .from(attachments)
    .where(and(eq(attachments.id, input.photoId), eq(attachments.requestId, request.id), eq(attachments.shared, true)))
  if (!file) throw notFound('photo')
  sendPicture(response, file)
})
