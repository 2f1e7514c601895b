import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { delivery, notFound, sha256 } from '#server/kit'
import { sendFile } from '#server/orders'
import { attachments } from '../tables'
import { siteByCode } from './siteByCode'

/** Whoever sent a photo ahead can go on drawing on it, also after the page was read anew. */
export default delivery(contract.readClaimedFile, async ({ db, input, response }) => {
  const site = await siteByCode(db, input.site)
  const [file] = await db
    .select()
    .from(attachments)
    .where(and(eq(attachments.claimHash, sha256(input.claim)), eq(attachments.siteId, site.id)))
  if (!file) throw notFound('file')
  await sendFile(db, response, file)
})
