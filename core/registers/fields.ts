import type { Permission } from '#core/people'

/** What a field can name by its id. */
export type NamedKind = 'place' | 'asset' | 'person' | 'team' | 'vendor' | 'payer' | 'account' | 'trade' | 'category'

interface Common {
  label: string
  /** The heading it stands under on the Portrait. */
  under: string
  /** A new record is not made without it, and it cannot be emptied. */
  needed?: true
  /** Said when it is made, and not changed by typing afterwards: why, in a sentence. */
  fixed?: string
  /** Shown to, and changed by, those alone who may do this. */
  may?: Permission
  hint?: string
  wide?: true
  mono?: true
}

/** Text of one line or several, a mail address, an amount in minor units, a day, one of a few words, a record named by its id, a whole number, a share in basis points. */
export type RegisterField = Common &
  (
    | { kind: 'line' | 'text'; most: number }
    | { kind: 'mail' | 'money' | 'day' | 'percent' }
    | { kind: 'choice'; choices: Record<string, string> }
    | { kind: 'named'; of: NamedKind }
    | { kind: 'count'; most: number; unit?: string }
  )

/** A register's fields: one for each property of its record, and the compiler sees that none is missing. */
export type FieldTable<Fields> = { [Name in keyof Fields]-?: RegisterField }
/** The same, whatever the register. */
export type AnyFieldTable = Record<string, RegisterField>
export type FieldValue = string | number | null

export const neededIn = (table: AnyFieldTable): string[] => Object.keys(table).filter((name) => table[name]!.needed)
/** The fields that say which record is meant by an id. */
export const namedIn = (table: AnyFieldTable) => Object.entries(table).flatMap(([name, field]) => (field.kind === 'named' ? [{ name, of: field.of }] : []))

/** How a day may be said to be over: warranty, insurance and the like are good through the day they name. */
export const isOverOn = (day: string | null, today: string): boolean => day !== null && day < today
