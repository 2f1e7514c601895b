import { date, index, int, json, mediumtext, mysqlTable, smallint, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { DOCUMENT_KINDS } from '#core/documents'
import type { Audience } from '#core/documents'
import { LIST_KINDS } from '#core/lists'
import { id, inUse, instant, mediumblob } from './columns'
import { storedFiles } from './kit'
import { accounts } from './people'

/** A document of a record, an order or a request; which site it is of follows from that. */
export const documents = mysqlTable(
  'document',
  {
    id: id(),
    on: varchar('kept_on', { length: 12, enum: LIST_KINDS }).notNull(),
    recordId: int('record_id').notNull(),
    kind: varchar('kind', { length: 12, enum: DOCUMENT_KINDS }).notNull(),
    title: varchar('title', { length: 140 }).notNull(),
    validFrom: date('valid_from', { mode: 'string' }),
    validUntil: date('valid_until', { mode: 'string' }),
    remindDays: smallint('remind_days'),
    /** The end somebody was reminded of already. */
    remindedOf: date('reminded_of', { mode: 'string' }),
    audience: json('audience').$type<Audience[]>().notNull(),
    /** What it is found by; of the newest version. */
    words: mediumtext('words').notNull(),
    addedBy: int('added_by')
      .notNull()
      .references(() => accounts.id),
    ...inUse(),
  },
  (table) => [index('document_of').on(table.on, table.recordId), index('document_end').on(table.validUntil, table.id)],
)

/** Every version of a document, as it was sent; pictures without position data. */
export const documentFiles = mysqlTable(
  'document_file',
  {
    id: id(),
    documentId: int('document_id')
      .notNull()
      .references(() => documents.id),
    number: int('number').notNull(),
    name: varchar('name', { length: 160 }).notNull(),
    mime: varchar('mime', { length: 60 }).notNull(),
    shows: varchar('shows', { length: 8, enum: ['picture', 'pdf', 'text', 'nothing'] }).notNull(),
    bytes: int('bytes').notNull(),
    storedId: int('stored_id')
      .notNull()
      .references(() => storedFiles.id),
    thumb: mediumblob('thumb'),
    byName: varchar('by_name', { length: 120 }).notNull(),
    at: instant('at').notNull(),
  },
  (table) => [uniqueIndex('document_file_number').on(table.documentId, table.number)],
)
