import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant, Page } from '#contract/kit'
import type { OrderLine } from '#contract/orders'
import type { RequestLine } from '#contract/requests'
import { LIST_KINDS } from '#core/lists'
import type { ListKind } from '#core/lists'
import { REGISTERS } from '#core/registers'
import type { RegisterName } from '#core/registers'

/** A list as its address says it: "state=ready,dispatched&finished=-30d..&sort=-finished". */
const ask = () => Joi.string().allow('').max(1500)
const kind = () => field.oneOf(LIST_KINDS).required()
const MOST_ROWS = 200

interface PageAsk {
  ask?: string
  after?: string
  limit?: number
}
const pageAsk = { ask: ask(), after: Joi.string().max(200), limit: Joi.number().integer().min(1).max(MOST_ROWS) }

/** What stands in a cell of a register: text, an amount as its field says, yes or no, or nothing. */
export type RecordCell = string | number | boolean | null

/** What stands in the own fields among the columns that were asked for, by their names. */
export interface WithOwn {
  own: Record<string, RecordCell>
}

export const listOrderLines = endpoint<PageAsk, Page<OrderLine & WithOwn>>({
  method: 'GET',
  path: '/api/lists/orders',
  says: 'Orders by any field, as the address of a list says, keyset-paged.',
  may: 'desk.read',
  input: Joi.object<PageAsk, true>(pageAsk),
})

export const listRequestLines = endpoint<PageAsk, Page<RequestLine & WithOwn>>({
  method: 'GET',
  path: '/api/lists/requests',
  says: 'Requests by any field, as the address of a list says, keyset-paged.',
  may: 'desk.read',
  input: Joi.object<PageAsk, true>(pageAsk),
})

/** A record as a row of its register. */
export interface RecordLine {
  id: number
  version: number
  /** What it is called by: its code, its tag, or its name. */
  number: string
  heading: string
  retired: boolean
  /** By column; a record that is named is named in words. */
  cells: Record<string, RecordCell>
}

export const listRecordLines = endpoint<{ register: RegisterName } & PageAsk, Page<RecordLine>>({
  method: 'GET',
  path: '/api/lists/registers/:register',
  says: 'Records of a register by any field, as the address of a list says, keyset-paged.',
  may: 'desk.read',
  input: Joi.object<{ register: RegisterName } & PageAsk, true>({ register: field.oneOf(REGISTERS).required(), ...pageAsk }),
})

export interface ListFacts {
  /** How many rows there are, counted up to a bound. */
  count: number
  /** There are more than were counted. */
  more: boolean
  /** What the ids in the address are called, by field. */
  names: Record<string, Record<string, string>>
}

export const readListFacts = endpoint<{ kind: ListKind; ask?: string }, ListFacts>({
  method: 'GET',
  path: '/api/lists/:kind/facts',
  says: 'How many rows a list has, and what the ids in its address are called.',
  may: 'desk.read',
  input: Joi.object<{ kind: ListKind; ask?: string }, true>({ kind: kind(), ask: ask() }),
})

export interface ListGroup {
  /** What the address asks for to have just these rows. */
  value: string
  label: string
  count: number
  /** Past their target; null where there are no targets. */
  past: number | null
  estimateMinor: number | null
}

export const listGroups = endpoint<{ kind: ListKind; ask?: string }, { rows: ListGroup[] }>({
  method: 'GET',
  path: '/api/lists/:kind/groups',
  says: 'The rows of a list brought together by a field: how many, and how many past their target.',
  may: 'desk.read',
  input: Joi.object<{ kind: ListKind; ask?: string }, true>({ kind: kind(), ask: ask() }),
})

/** The essentials of one row, shown without opening it. */
export interface Peek {
  id: number
  number: string
  summary: string
  description: string
  facts: { label: string; words: string }[]
  last: { at: Instant; who: string; kind: string; reason: string | null } | null
}

export const peekRow = endpoint<{ kind: ListKind; id: number }, Peek>({
  method: 'GET',
  path: '/api/lists/:kind/peek/:id',
  says: 'The essentials of one row of a list.',
  may: 'desk.read',
  input: Joi.object<{ kind: ListKind; id: number }, true>({ kind: kind(), id: field.id().required() }),
})

export const EXPORT_FORMATS = ['csv', 'xlsx'] as const
export type ExportFormat = (typeof EXPORT_FORMATS)[number]

export const exportList = endpoint<{ kind: ListKind; ask?: string; format: ExportFormat }, Blob>({
  method: 'GET',
  path: '/api/lists/:kind/export',
  says: 'Every row of a list with its columns, as CSV or XLSX, streamed.',
  may: 'desk.read',
  answers: 'file',
  input: Joi.object<{ kind: ListKind; ask?: string; format: ExportFormat }, true>({
    kind: kind(),
    ask: ask(),
    format: field.oneOf(EXPORT_FORMATS).required(),
  }),
})
