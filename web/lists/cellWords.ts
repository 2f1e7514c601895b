import type { RecordCell } from '#contract/lists'
import type { AmountShape, ListField } from '#core/lists'
import { dayOf, writtenAs } from '#web/kit'
import { choiceLabel } from '#web/portraits'

/** An amount as it is read: money and shares in their units, a number with what it is counted in. */
export function amountWords(shape: AmountShape, value: number, unit?: string | null): string {
  if (shape === 'count') return String(value)
  if (shape === 'percent') return `${writtenAs('percent', value)} %`
  return [writtenAs(shape === 'money' ? 'money' : 'quantity', shape === 'money' ? value : String(value)), unit].filter(Boolean).join(' ')
}

/** What stands in a cell of a register, or of a field the site has added. */
export function cellWords(value: RecordCell | undefined, { shape, choices, unit }: ListField): string {
  if (value === null || value === undefined || value === '') return ''
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (choices) return choiceLabel(choices, String(value))
  if (shape === 'date') return dayOf(String(value))
  if (shape === 'money' || shape === 'percent' || shape === 'number') return amountWords(shape, Number(value), unit)
  return String(value)
}
