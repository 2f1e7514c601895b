import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { articlesFor, bulletinsAt } from '#server/help'
import { query } from '#server/kit'
import { places } from '../tables'
import { knownHere } from './knownHere'
import { siteByCode } from './siteByCode'

const MOST = 5

export default query(contract.readAround, async ({ db, input, now, service }) => {
  const site = await siteByCode(db, input.site)
  const [place] = input.placeId
    ? await db
        .select()
        .from(places)
        .where(and(eq(places.id, input.placeId), eq(places.siteId, site.id)))
    : []
  const known = place
    ? await knownHere(db, service, site, { placeId: place.id, assetId: input.assetId ?? null, words: input.words ?? '', most: MOST }, now)
    : []
  return {
    requests: known,
    bulletins: await bulletinsAt(db, site.id, place?.id ?? null, now),
    articles: await articlesFor(db, site.id, input.words ?? '', input.categoryId ?? null),
  }
})
