import { and, asc, desc, eq, inArray, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { DocumentRow } from '#contract/documents'
import { documentStanding } from '#core/documents'
import { can, canAt } from '#server/kit'
import type { Asker, Outgoing, Reader } from '#server/kit'
import { calledThing, editsOf, siteOfThing } from '#server/registers'
import { documentFiles, documents } from '../tables'

export type DocumentRecord = typeof documents.$inferSelect

export const siteOfDocument = siteOfThing(documents.on, documents.recordId)

/** Documents of what somebody may see: of their sites, and of what serves every site. */
export const seenDocuments = (who: Pick<Asker, 'siteIds'>): SQL | undefined =>
  who.siteIds === null ? undefined : sql`(${siteOfDocument} is null or ${siteOfDocument} in (${who.siteIds.length ? sql.join(who.siteIds, sql`, `) : sql`0`}))`

/** Documents as the desk reads them, with all their versions. Two statements. */
export async function documentRows(
  db: Reader,
  who: Asker,
  today: string,
  where: SQL | undefined,
  order: SQL[] = [sql`${documents.retiredAt} is not null`, asc(documents.kind), asc(documents.title)],
  limit?: number,
): Promise<Outgoing<DocumentRow>[]> {
  const asked = db
    .select({ document: documents, called: calledThing(documents.on, documents.recordId), siteId: sql<number | null>`${siteOfDocument}` })
    .from(documents)
    .where(and(where, seenDocuments(who)))
    .orderBy(...order)
  const rows = await (limit ? asked.limit(limit) : asked)
  const files = rows.length
    ? await db
        .select({
          id: documentFiles.id,
          documentId: documentFiles.documentId,
          number: documentFiles.number,
          name: documentFiles.name,
          shows: documentFiles.shows,
          bytes: documentFiles.bytes,
          at: documentFiles.at,
          by: documentFiles.byName,
        })
        .from(documentFiles)
        .where(
          inArray(
            documentFiles.documentId,
            rows.map(({ document }) => document.id),
          ),
        )
        .orderBy(desc(documentFiles.number))
    : []
  return rows.map(({ document, called, siteId }) => {
    const { id, version, on, recordId, kind, title, validFrom, validUntil, remindDays, audience, retiredAt } = document
    const edits = editsOf(on)
    return {
      id,
      version,
      on,
      recordId,
      called,
      kind,
      title,
      validFrom,
      validUntil,
      remindDays,
      audience,
      standing: documentStanding(document, today),
      retired: retiredAt !== null,
      mayEdit: siteId === null ? can(who, edits) : canAt(who, edits, siteId),
      files: files.filter(({ documentId }) => documentId === id).map(({ documentId: _, ...file }) => file),
    }
  })
}

export async function documentRow(db: Reader, who: Asker, today: string, id: number): Promise<Outgoing<DocumentRow>> {
  const [row] = await documentRows(db, who, today, eq(documents.id, id))
  return row!
}
