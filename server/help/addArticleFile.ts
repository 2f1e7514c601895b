import { eq } from 'drizzle-orm'
import * as contract from '#contract/help'
import { preparedCommand, maySee, notFound, readFileSent } from '#server/kit'
import { articles, attachments } from '../tables'

export default preparedCommand(
  contract.addArticleFile,
  ({ request, input }) => readFileSent(request.file, input.name),
  async ({ tx, who, input, ready, now }) => {
    const [article] = await tx.select().from(articles).where(eq(articles.id, input.id))
    if (!article || !maySee(who, article.siteId)) throw notFound('article')
    const [saved] = await tx
      .insert(attachments)
      .values({ siteId: article.siteId, articleId: article.id, ...ready, shared: true, at: now })
      .$returningId()
    return { id: saved!.id, kind: ready.kind, name: ready.name, address: `/api/help/files/${saved!.id}` }
  },
)
