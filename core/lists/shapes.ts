import type { Permission } from '#core/people'
import type { NamedKind } from '#core/registers'

/** What a field named by id refers to. */
export type Register = NamedKind | 'category' | 'trade' | 'technician' | 'site' | 'ownState'

/**
 * How a field is asked about: one of a few, one of a register, words, yes and no, or a span: of money in minor units, of
 * whole numbers, of shares in basis points, of numbers with decimals, of instants by their day, of days that are written as such.
 */
export type FieldShape = 'choice' | 'named' | 'money' | 'count' | 'percent' | 'number' | 'day' | 'date' | 'text' | 'words' | 'flag'

/** What a span can be asked of: from and to, either open. */
export const isSpan = (shape: FieldShape): boolean => isAmount(shape) || isOfDays(shape)
export type AmountShape = 'money' | 'count' | 'percent' | 'number'
export const isAmount = (shape: FieldShape): shape is AmountShape => ['money', 'count', 'percent', 'number'].includes(shape)
export const isOfDays = (shape: FieldShape): shape is 'day' | 'date' => shape === 'day' || shape === 'date'

export interface ListField {
  name: string
  label: string
  shape: FieldShape
  choices?: Record<string, string>
  register?: Register
  /** May be empty, so that “none” and “any” can be asked for. */
  empties?: boolean
  /** Whether rows can be put in order by it, brought together by it, and show it in a column. */
  sorts?: boolean
  groups?: boolean
  shows?: boolean
  /** Shown and not asked for. */
  unasked?: boolean
  /** The property of the record it comes from, where that is called otherwise. */
  property?: string
  /** The field an administrator added that it is. */
  own?: number
  unit?: string | null
  /** Only for those who may do this. */
  may?: Permission
}
