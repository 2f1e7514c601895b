import type { ListAsk } from '#core/lists'

/** The list in the order of a field; once more, the other way round. Days and priority begin with what presses. */
export function sortedBy(ask: ListAsk, field: string): ListAsk {
  const down = ask.sort.field === field ? !ask.sort.down : field !== 'due' && field !== 'priority'
  return { ...ask, sort: { field, down } }
}
