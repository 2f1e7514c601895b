import type { Route } from '#server/kit'
import addDocument from './addDocument'
import addDocumentVersion from './addDocumentVersion'
import editDocument from './editDocument'
import listDocuments from './listDocuments'
import listDocumentsOf from './listDocumentsOf'
import readDocumentFile from './readDocumentFile'
import { sharedRoutes } from './shared'

export * from './documentWatch'
export * from './findDocuments'
export * from './mails'
export const routes: Route[] = [listDocuments, listDocumentsOf, addDocument, addDocumentVersion, readDocumentFile, editDocument, ...sharedRoutes]
