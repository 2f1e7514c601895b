import { and, asc, eq, gt, inArray, isNull, lt } from 'drizzle-orm'
import type { KnownArticle, KnownBulletin } from '#contract/requests'
import { searchWords } from '#core/kit'
import type { Outgoing, Reader } from '#server/kit'
import { articles, attachments, bulletinPlaces, bulletins, places } from '../tables'

const AHEAD_MS = 14 * 86_400_000
const MOST_ARTICLES = 3

/** Notices of now and the coming fortnight that cover a place: written for it or for a place above it. */
export async function bulletinsAt(db: Reader, siteId: number, placeId: number | null, now: Date): Promise<Outgoing<KnownBulletin>[]> {
  const [place] = placeId ? await db.select({ path: places.path }).from(places).where(eq(places.id, placeId)) : []
  const covering = place?.path.split('/').filter(Boolean).map(Number)
  const rows = await db
    .selectDistinct({ bulletin: bulletins })
    .from(bulletins)
    .innerJoin(bulletinPlaces, eq(bulletinPlaces.bulletinId, bulletins.id))
    .where(
      and(
        eq(bulletins.siteId, siteId),
        isNull(bulletins.withdrawnAt),
        gt(bulletins.endsAt, now),
        lt(bulletins.startsAt, new Date(now.getTime() + AHEAD_MS)),
        covering ? inArray(bulletinPlaces.placeId, covering) : undefined,
      ),
    )
    .orderBy(asc(bulletins.startsAt), asc(bulletins.id))
    .limit(10)
  return rows.map(({ bulletin: { id, kind, title, body, startsAt, endsAt } }) => ({ id, kind, title, body, startsAt, endsAt }))
}

/** Help that fits: of the category, or with words in common, the closest first. */
export async function articlesFor(db: Reader, siteId: number, words: string, categoryId: number | null): Promise<KnownArticle[]> {
  const sought = searchWords(words).filter((word) => word.length > 3)
  if (!sought.length && !categoryId) return []
  const rows = await db
    .select()
    .from(articles)
    .where(and(eq(articles.siteId, siteId), isNull(articles.withdrawnAt)))
  const fit = (row: typeof articles.$inferSelect) =>
    sought.filter((word) => ` ${row.searchText}`.includes(` ${word.slice(0, Math.max(5, word.length - 2))}`)).length +
    (categoryId && row.categoryId === categoryId ? 1.5 : 0)
  const fitting = rows
    .filter((row) => fit(row) >= 1)
    .sort((a, b) => fit(b) - fit(a))
    .slice(0, MOST_ARTICLES)
  const documents = await documentsOf(
    db,
    fitting.map((row) => row.id),
  )
  return fitting.map(({ id, title, body }) => ({
    id,
    title,
    body,
    documents: documents.filter((one) => one.articleId === id).map(({ articleId: _, ...one }) => one),
  }))
}

export async function documentsOf(db: Reader, articleIds: number[]) {
  if (!articleIds.length) return []
  return db
    .select({ id: attachments.id, name: attachments.name, bytes: attachments.bytes, articleId: attachments.articleId })
    .from(attachments)
    .where(and(inArray(attachments.articleId, articleIds), eq(attachments.kind, 'document')))
}
