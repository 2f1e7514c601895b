import { desc, eq } from 'drizzle-orm'
import * as contract from '#contract/documents'
import { documentWords } from '#core/documents'
import { preparedCommand } from '#server/kit'
import { documentFiles, documents } from '../tables'
import { keepFile, lockDocument, mayChangeDocument, toldOn } from './changeDocument'
import { documentRow } from './documentRows'
import { readDocumentSent } from './sentDocument'
import { todayAt } from './today'

export default preparedCommand(
  contract.addDocumentVersion,
  ({ request, input }) => readDocumentSent(request.file, input.name),
  async ({ tx, who, input, now, tell, ready: file }) => {
    const { document, thing } = await lockDocument(tx, who, input)
    const { id, on, recordId, title } = document
    const [newest] = await tx
      .select({ number: documentFiles.number })
      .from(documentFiles)
      .where(eq(documentFiles.documentId, id))
      .orderBy(desc(documentFiles.number))
      .limit(1)
    const number = (newest?.number ?? 0) + 1
    await keepFile(tx, document, number, file, who, now)
    await tx
      .update(documents)
      .set({ version: document.version + 1, words: documentWords(title, file.name, file.inside) })
      .where(eq(documents.id, id))
    await tell({ kind: 'document.version', siteId: thing.siteId, ...toldOn(on, recordId), details: { title, documentId: id, number } })
    return documentRow(tx, who, await todayAt(tx, thing.siteId, now), id)
  },
  ({ db, who, input }) => mayChangeDocument(db, who, input.id),
)
