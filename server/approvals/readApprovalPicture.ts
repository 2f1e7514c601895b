import { eq } from 'drizzle-orm'
import * as contract from '#contract/approvals'
import { delivery, notFound } from '#server/kit'
import { sendFile } from '#server/orders'
import { attachments } from '../tables'
import { openLink, picturesOf } from './openLink'

export default delivery(contract.readApprovalPicture, async ({ db, input, now, response }) => {
  const { order } = await openLink(db, input.token, now)
  const known = (await picturesOf(db, order.id)).some((one) => one.id === input.id)
  const [file] = known ? await db.select().from(attachments).where(eq(attachments.id, input.id)) : []
  if (!file) throw notFound('picture')
  await sendFile(db, response, file)
})
