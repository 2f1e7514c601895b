import type { NamedKind, RegisterField, RegisterName } from '#core/registers'
import { DeskFromPlan } from '#web/floorplans'
import { assetChoices, personChoices, placeChoices, useVocabulary } from '#web/kit'
import type { Choice } from '#web/kit'
import type { SheetField } from '#web/sheets'
import type { AnyRecord } from '#contract/portraits'

/** Where what an id names has its own page. */
const REGISTER_OF: Partial<Record<NamedKind, RegisterName>> = {
  place: 'places',
  asset: 'assets',
  person: 'people',
  team: 'teams',
  vendor: 'vendors',
  payer: 'payers',
}

/** How what an id names is found: typed for on the server, or from a short list. */
export function finderOf(of: NamedKind): { find?: (text: string) => Promise<Choice[]>; choices?: () => Choice[] } {
  const words = useVocabulary()
  void words.ensure()
  if (of === 'place') return { find: placeChoices }
  if (of === 'asset') return { find: (text) => assetChoices(text, null) }
  if (of === 'person') return { find: personChoices }
  if (of === 'team') return { choices: () => words.choices((all) => all.teams) }
  if (of === 'vendor') return { choices: () => words.choices((all) => all.vendors) }
  if (of === 'trade') return { choices: () => words.choices((all) => all.trades) }
  if (of === 'category') return { choices: () => words.choices((all) => all.categories) }
  if (of === 'payer') return { choices: () => words.choices((all) => all.payers) }
  return { choices: () => words.choices((all) => all.accounts) }
}

/** The words of a choice that has a code say it as well. */
export const choiceLabel = (choices: Record<string, string>, value: string): string =>
  /^[A-Z]\d/.test(value) ? `${value} ${choices[value] ?? ''}` : (choices[value] ?? value)

/** A field of a register as a Sheet reads and asks for it. */
export function recordField(name: string, field: RegisterField): SheetField<AnyRecord> {
  const common = { name, label: field.label, wide: field.wide, mono: field.mono, hint: () => field.hint }
  if (field.kind === 'choice')
    return {
      ...common,
      kind: 'pick',
      clearable: !field.needed,
      choices: () => Object.keys(field.choices).map((value) => ({ value, label: choiceLabel(field.choices, value) })),
    }
  if (field.kind === 'named') {
    const { find, choices } = finderOf(field.of)
    const register = REGISTER_OF[field.of]
    return {
      ...common,
      kind: 'pick',
      clearable: !field.needed,
      find: find && ((_, text) => find(text)),
      ...(name === 'placeId' ? { beside: { component: DeskFromPlan, of: 'place' as const, near: (record: AnyRecord) => Number(record[name]) || null } } : {}),
      choices,
      current: (record) => (typeof record[name] === 'number' ? { value: record[name], label: record.names[name] ?? '' } : null),
      leads: (record) => (register && typeof record[name] === 'number' ? { register, id: record[name] } : null),
    }
  }
  if (field.kind === 'count') return { ...common, kind: 'count', max: field.most, unit: field.unit }
  if (field.kind === 'line' || field.kind === 'text') return { ...common, kind: field.kind, max: field.most }
  if (field.kind === 'mail') return { ...common, kind: 'line', max: 190 }
  return { ...common, kind: field.kind }
}
