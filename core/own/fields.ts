/** What an administrator can add fields to. */
export const OWN_KINDS = ['requests', 'orders', 'places', 'assets', 'people', 'vendors', 'payers', 'parts'] as const
export type OwnKind = (typeof OWN_KINDS)[number]

export const OWN_SHAPES = ['text', 'number', 'date', 'choice', 'flag', 'link', 'person'] as const
export type OwnShape = (typeof OWN_SHAPES)[number]
export const OWN_SHAPE_NAMES: Record<OwnShape, string> = {
  text: 'Text',
  number: 'Number',
  date: 'Date',
  choice: 'Choice',
  flag: 'Yes or no',
  link: 'Link',
  person: 'Person',
}

/** A choice keeps its key, so that it can be called otherwise later. */
export interface OwnChoice {
  key: string
  name: string
}

/** A field of the site's own: what it is asked as, and of what. */
export interface OwnField {
  id: number
  kind: OwnKind
  label: string
  shape: OwnShape
  /** What stands behind a number. */
  unit: string | null
  choices: OwnChoice[]
}

/** What is kept in one: text for text, choices (their key) and links; a number for numbers, yes (1) or no (0) and a person's id; a day as "2026-11-25". */
export type OwnValue = string | number | null

export const MOST_TEXT = 400
export const MOST_CHOICES = 60
/** Own fields of one kind: more would make a form nobody fills in. */
export const MOST_FIELDS = 40

/** How a field is named in addresses, answers and inputs: "own12". */
export const ownName = (id: number): string => `own${id}`
export const ownId = (name: string): number | null => {
  const [, digits] = /^own([1-9]\d{0,6})$/.exec(name) ?? []
  return digits ? Number(digits) : null
}

/** Where a value is kept: each shape in a column of its own, so that it is put in order as what it is. */
export const OWN_COLUMNS: Record<OwnShape, 'text' | 'number' | 'day'> = {
  text: 'text',
  choice: 'text',
  link: 'text',
  number: 'number',
  flag: 'number',
  person: 'number',
  date: 'day',
}
