import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/documents'
import { delivery, notFound } from '#server/kit'
import { documentFiles, documents } from '../tables'
import { seenDocuments } from './documentRows'
import { sendDocument } from './sendDocument'

export default delivery(contract.readDocumentFile, async ({ db, who, input, response }) => {
  const [found] = await db
    .select({ file: documentFiles })
    .from(documentFiles)
    .innerJoin(documents, eq(documents.id, documentFiles.documentId))
    .where(and(eq(documentFiles.id, input.fileId), seenDocuments(who)))
  if (!found) throw notFound('document')
  await sendDocument(db, response, found.file, input.small)
})
