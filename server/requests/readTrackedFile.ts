import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { delivery, notFound } from '#server/kit'
import { sendFile } from '#server/orders'
import { attachments } from '../tables'
import { requestByLink } from './tracked'

export default delivery(contract.readTrackedFile, async ({ db, input, now, response }) => {
  const { request, follower } = await requestByLink(db, input.token, now)
  if (follower) throw notFound('file')
  const [file] = await db
    .select()
    .from(attachments)
    .where(and(eq(attachments.id, input.fileId), eq(attachments.requestId, request.id), eq(attachments.shared, true)))
  if (!file) throw notFound('file')
  await sendFile(db, response, file, input.small)
})
