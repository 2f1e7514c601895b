import { askedField, isRegister } from '#core/lists'
import type { ListAsk } from '#core/lists'

/** The list in the order of a field; once more, the other way round. Of work what presses comes first; of a register the first in the alphabet or the calendar, and the most. */
export function sortedBy(ask: ListAsk, field: string): ListAsk {
  const rises = isRegister(ask.kind) ? ['text', 'date'].includes(askedField(ask, field).shape) : field === 'due' || field === 'priority'
  const down = ask.sort.field === field ? !ask.sort.down : !rises
  return { ...ask, sort: { field, down } }
}
