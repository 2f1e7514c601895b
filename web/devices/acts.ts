import type { Endpoint } from '#contract/kit'
import type { FieldActName, FieldActs } from '#core/field'
import type { Act } from './outbox'

/** Answers that were read before, by their names, as they stand on the device. */
export interface Copies {
  read: <T>(name: string) => Promise<T | null>
}

/** How one kind of act is sent, and said. */
export interface ActKind<Name extends FieldActName> {
  /** Where it goes, with what is sent of it besides its moment. */
  endpoint: Endpoint<never, unknown>
  input: (act: Extract<Act['body'], { name: Name }>) => FieldActs[Name] & object
  /** Where its photo goes in one piece, from a device that keeps nothing. */
  whole?: Endpoint<never, unknown>
  /** In words, for whoever recorded it and for the desk. */
  says: (act: Extract<Act['body'], { name: Name }>) => string
  /** What stands on the device instead of what was read before, by name: by its answer, or by the act itself where that is null. */
  keeps: (act: Act, answer: never, copies: Copies) => Promise<{ name: string; value: unknown }[]>
}

export type ActKinds = { [Name in FieldActName]: ActKind<Name> }
