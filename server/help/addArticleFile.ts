import { eq } from 'drizzle-orm'
import * as contract from '#contract/help'
import { command, maySee, notFound, readFileSent } from '#server/kit'
import { articles, attachments } from '../tables'

export default command(contract.addArticleFile, async ({ tx, who, input, request, now }) => {
  const [article] = await tx.select().from(articles).where(eq(articles.id, input.id))
  if (!article || !maySee(who, article.siteId)) throw notFound('article')
  const file = await readFileSent(request.file, input.name)
  const [saved] = await tx
    .insert(attachments)
    .values({ siteId: article.siteId, articleId: article.id, ...file, shared: true, at: now })
    .$returningId()
  return { id: saved!.id, kind: file.kind, name: file.name, address: `/api/help/files/${saved!.id}` }
})
