import { index, int, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core'
import { instant, mediumblob } from './columns'

/** A file that arrives in pieces, over lines that break. It is gone once it was taken for something. */
export const uploads = mysqlTable(
  'upload',
  {
    /** Unguessable; its sender alone knows it. */
    id: varchar('id', { length: 43 }).primaryKey(),
    /** Whose it is: nobody else adds to it or takes it. */
    owner: varchar('owner', { length: 80 }).notNull(),
    bytes: int('bytes').notNull(),
    /** How far it has come. */
    received: int('received').notNull(),
    at: instant('at').notNull(),
  },
  (table) => [index('upload_at').on(table.at)],
)

export const uploadPieces = mysqlTable(
  'upload_piece',
  {
    uploadId: varchar('upload_id', { length: 43 })
      .notNull()
      .references(() => uploads.id, { onDelete: 'cascade' }),
    /** Of its first byte in the whole. */
    position: int('position').notNull(),
    content: mediumblob('content').notNull(),
  },
  (table) => [primaryKey({ columns: [table.uploadId, table.position] })],
)
