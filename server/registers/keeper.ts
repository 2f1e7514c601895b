import type { SQL } from 'drizzle-orm'
import type { MySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core'
import type { Reason } from '#core/kit'
import type { AnyFieldTable, FieldTable, RegisterName } from '#core/registers'
import type { Reader, Tx } from '#server/kit'

/** A table whose rows are records of a register. */
export type RecordTable = MySqlTable & { id: MySqlColumn; version: MySqlColumn; retiredAt: MySqlColumn; siteId?: MySqlColumn }

/** What every record has, whatever its register. */
export interface RecordRow {
  id: number
  version: number
  retiredAt: Date | null
  siteId?: number
}

/** How a register is kept: what its room brings so that reading, entering, changing and retiring its records is the same for all. */
export interface Keeper<Fields = Record<string, never>> {
  register: RegisterName
  table: RecordTable
  fields: FieldTable<Fields>
  called: (row: Fields) => { code: string | null; heading: string }
  /** Which orders and requests are work on a record, everything below it included. */
  orders?: (row: RecordRow & Fields) => SQL
  requests?: (row: RecordRow & Fields) => SQL
  /** What stands in the way of a record as it would be then; `before` is null for a new one. */
  refuses?: (tx: Tx, after: RecordRow & Fields, before: (RecordRow & Fields) | null) => Promise<Reason[]>
  /** Columns that follow from the fields. */
  follows?: (tx: Tx, after: RecordRow & Fields, before: (RecordRow & Fields) | null) => Promise<Record<string, unknown>>
  /** What has to change elsewhere once the row is there. */
  settle?: (tx: Tx, after: RecordRow & Fields, before: (RecordRow & Fields) | null) => Promise<void>
  /** What keeps it from being retired, besides work that is open. */
  holds?: (db: Reader, row: RecordRow & Fields) => Promise<Reason[]>
}

/** A keeper whose fields are looked at by name only. */
export type AnyKeeper = Omit<Keeper<Record<string, never>>, 'fields'> & { fields: AnyFieldTable }
export type AnyRow = RecordRow & Record<string, string | number | null | Date>

/** The same keeper, to those who do not know its fields. */
export const anyKeeper = <Fields>(keeper: Keeper<Fields>): AnyKeeper => keeper as unknown as AnyKeeper

/** The fields somebody sees and may change: some are for those alone who may do more. */
export function fieldsFor(fields: AnyFieldTable, mayDo: (permission: NonNullable<AnyFieldTable[string]['may']>) => boolean): string[] {
  return Object.keys(fields).filter((name) => !fields[name]!.may || mayDo(fields[name]!.may))
}
