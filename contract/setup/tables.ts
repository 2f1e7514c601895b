import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import { TABLE_KINDS } from '#core/setup'
import type { BadRow, TableKind } from '#core/setup'

/** What a table would do, or has done. */
export interface TableReport {
  columns: { heading: string; sample: string; field: string | null }[]
  fields: { code: string; name: string; required: boolean }[]
  /** Why the columns cannot be read so; then no row was looked at. */
  unread: string[]
  rows: number
  fresh: number
  changed: number
  same: number
  bad: BadRow[]
  /** How many bad rows there are, when more than are listed. */
  badCount: number
  taken: boolean
}

export const takeTable = endpoint<{ what: TableKind; siteId: number; matching?: string; take?: boolean; name?: string }, TableReport>({
  method: 'POST',
  path: '/api/setup/tables/:what',
  says: 'Records of a register from a CSV file (RFC 4180), with the fields of one’s own. Without "take", says what it would do. Good rows go in alone; the same file twice changes nothing.',
  // Of each register for those who keep it.
  may: 'desk.read',
  upload: true,
  input: Joi.object<{ what: TableKind; siteId: number; matching?: string; take?: boolean; name?: string }, true>({
    what: field.oneOf(TABLE_KINDS).required(),
    siteId: field.id().required(),
    /** For each column the code of its field, with commas between; empty for a column to leave out. */
    matching: Joi.string().max(2000).allow(''),
    take: Joi.boolean(),
    name: Joi.string().max(160),
  }),
})
