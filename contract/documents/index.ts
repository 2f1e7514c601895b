import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant, Page } from '#contract/kit'
import { AUDIENCES, DOCUMENT_KINDS, DOCUMENT_STANDINGS, MOST_REMIND_DAYS } from '#core/documents'
import type { Audience, DocumentFields, DocumentKind, DocumentStanding } from '#core/documents'
import { LIST_KINDS } from '#core/lists'
import type { ListKind } from '#core/lists'

/** A version of a document. */
export interface DocumentFile {
  id: number
  number: number
  name: string
  /** A picture is shown as it is; a PDF and text are shown page by page; the rest is downloaded. */
  shows: 'picture' | 'pdf' | 'text' | 'nothing'
  bytes: number
  at: Instant
  by: string
}

export interface DocumentRow extends DocumentFields {
  id: number
  version: number
  /** What it is of. */
  on: ListKind
  recordId: number
  called: string
  standing: DocumentStanding
  retired: boolean
  mayEdit: boolean
  /** The newest first. */
  files: DocumentFile[]
}

/** What documents are of: any record, an order or a request. */
interface Owner {
  on: ListKind
  id: number
}
const owner = { on: field.oneOf(LIST_KINDS).required(), id: field.id().required() }

export const listDocumentsOf = endpoint<Owner, { rows: DocumentRow[]; mayAdd: boolean }>({
  method: 'GET',
  path: '/api/documents/of/:on/:id',
  says: 'The documents of a record, an order or a request, those put away last.',
  may: 'desk.read',
  input: Joi.object<Owner, true>(owner),
})

interface DocumentsAsked {
  kind?: DocumentKind
  standing?: DocumentStanding
  q?: string
  after?: string
  limit?: number
}

export const listDocuments = endpoint<DocumentsAsked, Page<DocumentRow>>({
  method: 'GET',
  path: '/api/documents',
  says: 'Documents of everything, those that end first before the others.',
  may: 'desk.read',
  input: Joi.object<DocumentsAsked, true>({
    kind: field.oneOf(DOCUMENT_KINDS),
    standing: field.oneOf(DOCUMENT_STANDINGS),
    q: field.search(),
    after: Joi.string().max(200),
    limit: field.limit(),
  }),
})

const said = {
  kind: field.oneOf(DOCUMENT_KINDS),
  title: field.line(140),
  validFrom: field.day().allow(null, ''),
  validUntil: field.day().allow(null, ''),
  remindDays: Joi.number().integer().min(0).max(MOST_REMIND_DAYS).allow(null, ''),
}

/** What goes beside a file travels in the address: lists with commas between. */
interface NewDocument extends Owner {
  kind: DocumentKind
  title?: string
  name?: string
  validFrom?: string | null
  validUntil?: string | null
  remindDays?: number | null
  audience?: string
}

export const addDocument = endpoint<NewDocument, DocumentRow>({
  method: 'POST',
  path: '/api/documents/of/:on/:id',
  says: 'Add a document with its first file. Without a title, it is called as the file is.',
  may: 'desk.read',
  upload: true,
  input: Joi.object<NewDocument, true>({
    ...owner,
    ...said,
    kind: said.kind.required(),
    name: Joi.string().max(200),
    audience: Joi.string()
      .allow('')
      .pattern(new RegExp(`^(${AUDIENCES.join('|')})(,(${AUDIENCES.join('|')}))*$`))
      .messages({ 'string.pattern.base': `Name who may see it, with commas between: ${AUDIENCES.join(', ')}.` }),
  }),
})

interface OfDocument {
  id: number
  version: number
}
const ofDocument = { id: field.id().required(), version: field.version().required() }

export const addDocumentVersion = endpoint<OfDocument & { name?: string }, DocumentRow>({
  method: 'POST',
  path: '/api/documents/:id/files',
  says: 'Add a newer version of a document. Earlier ones stay.',
  may: 'desk.read',
  upload: true,
  input: Joi.object<OfDocument & { name?: string }, true>({ ...ofDocument, name: Joi.string().max(200) }),
})

interface DocumentEdit extends OfDocument, Partial<DocumentFields> {
  /** Put away, or taken out again. */
  retired?: boolean
}

export const editDocument = endpoint<DocumentEdit, DocumentRow>({
  method: 'PATCH',
  path: '/api/documents/:id',
  says: 'Change what is said of a document, or put it away.',
  may: 'desk.read',
  input: Joi.object<DocumentEdit, true>({
    ...ofDocument,
    ...said,
    audience: Joi.array<Audience[]>().items(field.oneOf(AUDIENCES)).unique(),
    retired: Joi.boolean(),
  }),
})

interface OfFile {
  fileId: number
  /** A small copy of a picture. */
  small?: boolean
}
const ofFile = { fileId: field.id().required(), small: Joi.boolean() }

export const readDocumentFile = endpoint<OfFile, Blob>({
  method: 'GET',
  path: '/api/documents/files/:fileId',
  says: 'A version of a document, as it was sent.',
  may: 'desk.read',
  answers: 'file',
  input: Joi.object<OfFile, true>(ofFile),
})

/** A document as those outside the desk see it: its newest version, while it is in force. */
export interface SharedDocument {
  fileId: number
  kind: DocumentKind
  title: string
  name: string
  shows: DocumentFile['shows']
  bytes: number
}

interface OnVisit {
  visitId: number
}
export const listJobDocuments = endpoint<OnVisit, { rows: SharedDocument[] }>({
  method: 'GET',
  path: '/api/rounds/:visitId/documents',
  says: 'The documents a technician may see of their job: of the order, its asset, its place.',
  may: 'field.work',
  input: Joi.object<OnVisit, true>({ visitId: field.id().required() }),
})
export const readJobDocument = endpoint<OnVisit & OfFile, Blob>({
  method: 'GET',
  path: '/api/rounds/:visitId/documents/:fileId',
  says: 'One of them.',
  may: 'field.work',
  answers: 'file',
  input: Joi.object<OnVisit & OfFile, true>({ visitId: field.id().required(), ...ofFile }),
})

interface ByLink {
  token: string
}
const linkInput = Joi.object<ByLink, true>({ token: field.token().required() })
const linkFileInput = Joi.object<ByLink & OfFile, true>({ token: field.token().required(), ...ofFile })
const ONE_OF_THEM = 'One of the documents the link shows, as it was sent.'

export const listPassDocuments = endpoint<ByLink, { rows: SharedDocument[] }>({
  method: 'GET',
  path: '/api/pass/:token/documents',
  says: 'The documents a vendor may see of what the link is about.',
  may: 'vendor',
  input: linkInput,
})
export const readPassDocument = endpoint<ByLink & OfFile, Blob>({
  method: 'GET',
  path: '/api/pass/:token/documents/:fileId',
  says: ONE_OF_THEM,
  may: 'vendor',
  answers: 'file',
  input: linkFileInput,
})
export const listApprovalDocuments = endpoint<ByLink, { rows: SharedDocument[] }>({
  method: 'GET',
  path: '/api/approval/:token/documents',
  says: 'The documents who pays may see of what the link is about.',
  may: 'approver',
  input: linkInput,
})
export const readApprovalDocument = endpoint<ByLink & OfFile, Blob>({
  method: 'GET',
  path: '/api/approval/:token/documents/:fileId',
  says: ONE_OF_THEM,
  may: 'approver',
  answers: 'file',
  input: linkFileInput,
})
export const listTrackedDocuments = endpoint<ByLink, { rows: SharedDocument[] }>({
  method: 'GET',
  path: '/api/track/:token/documents',
  says: 'The documents who reported may see of what the link is about.',
  may: 'reporter',
  input: linkInput,
})
export const readTrackedDocument = endpoint<ByLink & OfFile, Blob>({
  method: 'GET',
  path: '/api/track/:token/documents/:fileId',
  says: ONE_OF_THEM,
  may: 'reporter',
  answers: 'file',
  input: linkFileInput,
})
