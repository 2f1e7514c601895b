import { and, desc, inArray, isNull, lt, sql } from 'drizzle-orm'
import type { ListKind } from '#core/lists'
import { indexedWords } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { calledThing } from '#server/registers'
import { documents } from '../tables'
import { seenDocuments } from './documentRows'

const MOST_SECONDS = 1.5

export interface FoundDocument {
  id: number
  title: string
  words: string
  on: ListKind
  recordId: number
  called: string
}

/** Documents that have all the words in their title or inside, the newest first. @throws when the index takes too long */
export async function findDocuments(db: Reader, who: Asker, words: string[], { before, limit }: { before?: number; limit: number }): Promise<FoundDocument[]> {
  const asked = indexedWords(words)
  if (!asked.length) return []
  const [ids] = (await db.execute(sql`set statement max_statement_time = ${sql.raw(String(MOST_SECONDS))} for select id from ${documents}
    where match (${documents.words}) against (${asked.map((word) => `+${word}*`).join(' ')} in boolean mode) and ${documents.retiredAt} is null
    ${before === undefined ? sql`` : sql`and ${lt(documents.id, before)}`} order by id desc limit ${limit * 4}`)) as unknown as [{ id: number }[]]
  if (!ids.length) return []
  return db
    .select({
      id: documents.id,
      title: documents.title,
      words: documents.words,
      on: documents.on,
      recordId: documents.recordId,
      called: calledThing(documents.on, documents.recordId),
    })
    .from(documents)
    .where(
      and(
        inArray(
          documents.id,
          ids.map(({ id }) => id),
        ),
        isNull(documents.retiredAt),
        seenDocuments(who),
      ),
    )
    .orderBy(desc(documents.id))
    .limit(limit)
}
