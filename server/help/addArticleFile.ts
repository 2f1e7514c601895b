import { eq } from 'drizzle-orm'
import * as contract from '#contract/help'
import { keepAttachment, maySee, notFound, preparedCommand, readFileSent } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { articles } from '../tables'

export default preparedCommand(
  contract.addArticleFile,
  ({ request, input }) => readFileSent(request.file, input.name),
  async ({ tx, who, input, ready, now }) => {
    const article = await articleOf(tx, who, input.id)
    const id = await keepAttachment(tx, { siteId: article.siteId, articleId: article.id, ...ready, shared: true, at: now })
    return { id, kind: ready.kind, name: ready.name, address: `/api/help/files/${id}` }
  },
  ({ db, who, input }) => articleOf(db, who, input.id),
)

async function articleOf(db: Reader, who: Asker, id: number) {
  const [article] = await db.select().from(articles).where(eq(articles.id, id))
  if (!article || !maySee(who, article.siteId)) throw notFound('article')
  return article
}
