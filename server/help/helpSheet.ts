import { desc, eq, inArray } from 'drizzle-orm'
import type { HelpSheet } from '#contract/help'
import { withinSites } from '#server/kit'
import type { Asker, Outgoing, Reader } from '#server/kit'
import { articles, bulletinPlaces, bulletins, places } from '../tables'
import { documentsOf } from './known'

const MOST = 200

/** Everything the desk has written for occupants, newest first. */
export async function readHelpSheet(db: Reader, who: Asker): Promise<Outgoing<HelpSheet>> {
  const written = await db.select().from(bulletins).where(withinSites(who, bulletins.siteId)).orderBy(desc(bulletins.startsAt), desc(bulletins.id)).limit(MOST)
  const covered = written.length
    ? await db
        .select({ bulletinId: bulletinPlaces.bulletinId, id: places.id, code: places.code, name: places.name })
        .from(bulletinPlaces)
        .innerJoin(places, eq(places.id, bulletinPlaces.placeId))
        .where(
          inArray(
            bulletinPlaces.bulletinId,
            written.map((row) => row.id),
          ),
        )
    : []
  const helping = await db.select().from(articles).where(withinSites(who, articles.siteId)).orderBy(desc(articles.changedAt), desc(articles.id)).limit(MOST)
  const documents = await documentsOf(
    db,
    helping.map((row) => row.id),
  )
  return {
    bulletins: written.map(({ writtenBy: _, withdrawnAt, ...row }) => ({
      ...row,
      places: covered.filter((one) => one.bulletinId === row.id).map(({ bulletinId: __, ...place }) => place),
      withdrawn: withdrawnAt !== null,
    })),
    articles: helping.map(({ writtenBy: _, withdrawnAt, searchText: __, ...row }) => ({
      ...row,
      withdrawn: withdrawnAt !== null,
      documents: documents.filter((one) => one.articleId === row.id).map(({ articleId: ___, ...one }) => one),
    })),
  }
}
