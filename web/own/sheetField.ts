import type { OwnSheet } from '#contract/own'
import { ownName } from '#core/own'
import type { OwnField } from '#core/own'
import { personChoices } from '#web/kit'
import type { Choice } from '#web/kit'
import type { SheetField } from '#web/sheets'

const KINDS = { text: 'line', link: 'line', number: 'number', date: 'day', choice: 'pick', flag: 'pick', person: 'pick' } as const
const YES_NO: Choice[] = [
  { value: 1, label: 'Yes' },
  { value: 0, label: 'No' },
]

/** An own field as a Sheet reads and asks for it. */
export function ownSheetField({ id, label, shape, unit, choices }: OwnField): SheetField<OwnSheet> {
  const name = ownName(id)
  const common = { name, label, kind: KINDS[shape], max: 400, unit: unit ?? undefined, clearable: true }
  switch (shape) {
    case 'choice':
      return { ...common, choices: () => choices.map((choice) => ({ value: choice.key, label: choice.name })) }
    case 'flag':
      return { ...common, choices: () => YES_NO }
    case 'person': {
      const held = (sheet: OwnSheet) => (typeof sheet[name] === 'number' ? sheet[name] : null)
      return {
        ...common,
        find: (_, text) => personChoices(text),
        current: (sheet) => (held(sheet) === null ? null : { value: held(sheet)!, label: sheet.names[name] ?? '' }),
        leads: (sheet) => (held(sheet) === null ? null : { register: 'people', id: held(sheet)! }),
      }
    }
    case 'link':
      return { ...common, href: (sheet) => (typeof sheet[name] === 'string' ? sheet[name] : null) }
    default:
      return common
  }
}
