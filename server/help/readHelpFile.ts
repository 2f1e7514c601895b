import { and, eq, isNull } from 'drizzle-orm'
import * as contract from '#contract/help'
import { delivery, notFound } from '#server/kit'
import { sendFile } from '#server/orders'
import { articles, attachments } from '../tables'

export default delivery(contract.readHelpFile, async ({ db, input, response }) => {
  const [found] = await db
    .select({ file: attachments })
    .from(attachments)
    .innerJoin(articles, eq(articles.id, attachments.articleId))
    .where(and(eq(attachments.id, input.id), isNull(articles.withdrawnAt)))
  if (!found) throw notFound('file')
  await sendFile(db, response, found.file)
})
