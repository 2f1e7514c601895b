import { HOLD_REASON_NAMES, ORDER_KIND_NAMES, ORDER_STATE_NAMES } from '#core/orders'
import type { Permission } from '#core/people'
import { REGISTER_NAMES, REGISTERS } from '#core/registers'
import type { RegisterName } from '#core/registers'
import { CHANNEL_NAMES, CONSEQUENCE_NAMES, PRIORITY_NAMES, REQUEST_STATE_NAMES, URGENCY_NAMES } from '#core/requests'
import { REGISTER_COLUMNS, REGISTER_LIST_FIELDS } from './registerFields'
import type { ListField } from './shapes'

/** Lists of work; every register is a list of its own beside them. */
export const WORK_LISTS = ['orders', 'requests'] as const
export const LIST_KINDS = [...WORK_LISTS, ...REGISTERS] as const
export type ListKind = (typeof WORK_LISTS)[number] | RegisterName

export const isRegister = (kind: ListKind): kind is RegisterName => (REGISTERS as readonly string[]).includes(kind)
export const LIST_NAMES: Record<ListKind, string> = { orders: 'Orders', requests: 'Requests', ...REGISTER_NAMES }

const STANDINGS = { on_time: 'On time', close: 'Close to target', past: 'Past target' }

const ORDER_FIELDS: ListField[] = [
  { name: 'words', label: 'Words', shape: 'words' },
  { name: 'number', label: 'Number', shape: 'text', sorts: true, shows: true },
  { name: 'summary', label: 'Summary', shape: 'text', shows: true },
  { name: 'state', label: 'State', shape: 'choice', choices: ORDER_STATE_NAMES, groups: true, shows: true },
  { name: 'standing', label: 'Target', shape: 'choice', choices: STANDINGS, shows: true },
  { name: 'priority', label: 'Priority', shape: 'choice', choices: PRIORITY_NAMES, sorts: true, groups: true, shows: true, empties: true },
  { name: 'kind', label: 'Kind of work', shape: 'choice', choices: ORDER_KIND_NAMES, groups: true, shows: true },
  { name: 'place', label: 'Place', shape: 'named', register: 'place', groups: true, shows: true, empties: true },
  { name: 'asset', label: 'Asset', shape: 'named', register: 'asset', groups: true, shows: true, empties: true },
  { name: 'category', label: 'Category', shape: 'named', register: 'category', groups: true, shows: true, empties: true },
  { name: 'trade', label: 'Trade', shape: 'named', register: 'trade', groups: true, shows: true, empties: true },
  { name: 'team', label: 'Team', shape: 'named', register: 'team', groups: true, shows: true, empties: true },
  { name: 'lead', label: 'Lead', shape: 'named', register: 'account', groups: true, shows: true, empties: true },
  { name: 'supervisor', label: 'Supervisor', shape: 'named', register: 'account', groups: true, shows: true, empties: true },
  { name: 'technician', label: 'Technician', shape: 'named', register: 'technician', empties: true },
  { name: 'vendor', label: 'Vendor', shape: 'named', register: 'vendor', empties: true },
  { name: 'who', label: 'Who goes', shape: 'flag', shows: true },
  { name: 'payer', label: 'Payer', shape: 'named', register: 'payer', shows: true, empties: true },
  { name: 'estimate', label: 'Estimate', shape: 'money', sorts: true, shows: true, empties: true },
  { name: 'due', label: 'Due', shape: 'day', sorts: true, shows: true },
  { name: 'created', label: 'Made', shape: 'day', sorts: true, shows: true },
  { name: 'start', label: 'First planned start', shape: 'day', empties: true, shows: true },
  { name: 'finished', label: 'Finished', shape: 'day', sorts: true, shows: true, empties: true },
  { name: 'closed', label: 'Closed', shape: 'day', sorts: true, shows: true, empties: true },
  { name: 'hold', label: 'Waiting for', shape: 'choice', choices: HOLD_REASON_NAMES, groups: true, shows: true, empties: true },
  { name: 'ownstate', label: 'Own state', shape: 'named', register: 'ownState', groups: true, shows: true, empties: true },
  { name: 'consequence', label: 'Who is affected', shape: 'choice', choices: CONSEQUENCE_NAMES, empties: true },
  { name: 'urgency', label: 'How soon', shape: 'choice', choices: URGENCY_NAMES, empties: true },
  { name: 'contact', label: 'Contact', shape: 'text', shows: true, empties: true },
  { name: 'reference', label: 'Outside reference', shape: 'text', shows: true, empties: true },
  { name: 'grouped', label: 'In a group', shape: 'flag' },
  { name: 'archived', label: 'Archived', shape: 'flag' },
  { name: 'discarded', label: 'Discarded', shape: 'flag' },
]

const REQUEST_FIELDS: ListField[] = [
  { name: 'words', label: 'Words', shape: 'words' },
  { name: 'number', label: 'Number', shape: 'text', sorts: true, shows: true },
  { name: 'summary', label: 'Summary', shape: 'text', shows: true },
  { name: 'state', label: 'State', shape: 'choice', choices: REQUEST_STATE_NAMES, groups: true, shows: true },
  { name: 'standing', label: 'Target', shape: 'choice', choices: STANDINGS, shows: true },
  { name: 'channel', label: 'Came by', shape: 'choice', choices: CHANNEL_NAMES, groups: true, shows: true },
  { name: 'priority', label: 'Priority', shape: 'choice', choices: PRIORITY_NAMES, sorts: true, groups: true, shows: true, empties: true },
  { name: 'place', label: 'Place', shape: 'named', register: 'place', sorts: true, groups: true, shows: true, empties: true },
  { name: 'asset', label: 'Asset', shape: 'named', register: 'asset', groups: true, shows: true, empties: true },
  { name: 'category', label: 'Category', shape: 'named', register: 'category', groups: true, shows: true, empties: true },
  { name: 'payer', label: 'Payer', shape: 'named', register: 'payer', groups: true, shows: true, empties: true },
  { name: 'reporter', label: 'Reporter', shape: 'text', shows: true, empties: true },
  { name: 'takenup', label: 'Taken up by', shape: 'named', register: 'account', groups: true, shows: true, empties: true },
  { name: 'received', label: 'Received', shape: 'day', sorts: true, shows: true },
  { name: 'due', label: 'To be decided by', shape: 'day', sorts: true, shows: true },
  { name: 'decided', label: 'Decided', shape: 'day', sorts: true, shows: true, empties: true },
  { name: 'consequence', label: 'Who is affected', shape: 'choice', choices: CONSEQUENCE_NAMES, empties: true },
  { name: 'urgency', label: 'How soon', shape: 'choice', choices: URGENCY_NAMES, empties: true },
  { name: 'wish', label: 'Wish', shape: 'text', shows: true, empties: true },
  { name: 'reference', label: 'Outside reference', shape: 'text', shows: true, empties: true },
  { name: 'repeats', label: 'Said to be not fixed', shape: 'flag' },
]

export const LIST_FIELDS: Record<ListKind, readonly ListField[]> = { orders: ORDER_FIELDS, requests: REQUEST_FIELDS, ...REGISTER_LIST_FIELDS }

/** The fields of a list that somebody may see. */
export const listFieldsFor = (kind: ListKind, mayDo: (permission: Permission) => boolean): readonly ListField[] =>
  LIST_FIELDS[kind].filter(({ may }) => !may || mayDo(may))

export const fieldIn = (fields: readonly ListField[], name: string): ListField | undefined => fields.find((field) => field.name === name)

/** What a list shows when nobody chose. */
export const USUAL_COLUMNS: Record<ListKind, readonly string[]> = {
  orders: ['number', 'summary', 'state', 'priority', 'standing', 'place', 'who', 'estimate'],
  requests: ['number', 'summary', 'state', 'priority', 'standing', 'place', 'channel', 'reporter'],
  ...REGISTER_COLUMNS,
}

export interface ListSort {
  field: string
  down: boolean
}
/** The order of rows when nobody chose: of work the most pressing first, of a register by what a record is called. */
export const usualSort = (kind: ListKind): ListSort => ({ field: isRegister(kind) ? REGISTER_COLUMNS[kind][0]! : 'due', down: false })
