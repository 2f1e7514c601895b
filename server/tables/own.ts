import { date, decimal, index, int, json, mysqlTable, primaryKey, smallint, varchar } from 'drizzle-orm/mysql-core'
import { OWN_KINDS, OWN_SHAPES } from '#core/own'
import type { OwnChoice } from '#core/own'
import { id, inUse } from './columns'

/** Fields an administrator has added to what there is. */
export const ownFields = mysqlTable('own_field', {
  id: id(),
  kind: varchar('kind', { length: 12, enum: OWN_KINDS }).notNull(),
  label: varchar('label', { length: 60 }).notNull(),
  shape: varchar('shape', { length: 8, enum: OWN_SHAPES }).notNull(),
  unit: varchar('unit', { length: 16 }),
  choices: json('choices').$type<OwnChoice[]>().notNull(),
  position: smallint('position').notNull(),
  ...inUse(),
})

/** What stands in them: in the column of its shape, each with an index that leads from a value to its records. */
export const ownValues = mysqlTable(
  'own_value',
  {
    fieldId: int('field_id')
      .notNull()
      .references(() => ownFields.id),
    /** Of the kind the field is of. */
    recordId: int('record_id').notNull(),
    text: varchar('text', { length: 400 }),
    number: decimal('number', { precision: 18, scale: 4, mode: 'number' }),
    day: date('day', { mode: 'string' }),
  },
  (table) => [
    primaryKey({ columns: [table.fieldId, table.recordId] }),
    index('own_value_text').on(table.fieldId, table.text, table.recordId),
    index('own_value_number').on(table.fieldId, table.number, table.recordId),
    index('own_value_day').on(table.fieldId, table.day, table.recordId),
  ],
)

/** How often the own fields of a record were changed: a stale change is refused. */
export const ownVersions = mysqlTable(
  'own_version',
  {
    kind: varchar('kind', { length: 12, enum: OWN_KINDS }).notNull(),
    recordId: int('record_id').notNull(),
    version: int('version').notNull(),
  },
  (table) => [primaryKey({ columns: [table.kind, table.recordId] })],
)
