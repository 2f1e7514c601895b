import { eq } from 'drizzle-orm'
import * as contract from '#contract/help'
import { foldText } from '#core/kit'
import { command, conflict, maySee, mustKnow, mySite, notFound } from '#server/kit'
import { articles } from '../tables'
import { readHelpSheet } from './helpSheet'
import { cleanRichText, wordsOf } from './richText'

export default command(contract.saveArticle, async ({ tx, who, input, now, tell }) => {
  await mySite(tx, who, input.siteId)
  await mustKnow(tx, { siteId: input.siteId, who }, { categoryId: ['category', input.categoryId] })
  const { id, version, withdrawn, ...words } = input
  const body = cleanRichText(words.body)
  const row = { ...words, body, searchText: foldText(`${words.title} ${wordsOf(body)}`).slice(0, 2000), changedAt: now, withdrawnAt: withdrawn ? now : null }
  if (id) {
    const [before] = await tx.select().from(articles).where(eq(articles.id, id)).for('update')
    if (!before || !maySee(who, before.siteId)) throw notFound('article')
    if (before.version !== version) throw conflict(before.version, [{ field: 'title', theirs: before.title, yours: row.title }])
    await tx
      .update(articles)
      .set({ ...row, version: before.version + 1 })
      .where(eq(articles.id, id))
  } else await tx.insert(articles).values({ ...row, writtenBy: who.accountId })
  await tell({ kind: 'help.article', siteId: input.siteId, details: { title: input.title, withdrawn: !!withdrawn } })
  return readHelpSheet(tx, who)
})
