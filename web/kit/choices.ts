/** Choices of a field from keys and what they are called. */
export const named = <Key extends string>(keys: readonly Key[], names: Readonly<Record<Key, string>>): { value: Key; label: string }[] =>
  keys.map((value) => ({ value, label: names[value] }))

/** Choices of a field from rows that have a name. */
export const rowsNamed = (rows: readonly { id: number; name: string }[] | undefined): { value: number; label: string }[] =>
  (rows ?? []).map(({ id, name }) => ({ value: id, label: name }))

/** Choices of a field from texts. */
export const texts = (all: readonly string[]): { value: string; label: string }[] => all.map((value) => ({ value, label: value }))
