import { listRequests } from '#contract/requests'
import { call } from '#web/kit'
import type { Choice } from '../kit/PickField.vue'

/** Requests that another can be joined to, by number, words or place. */
export async function findOpenRequests(q: string, notId: number): Promise<Choice[]> {
  const [fresh, accepted] = await Promise.all([call(listRequests, { q, state: 'new', limit: 10 }), call(listRequests, { q, state: 'accepted', limit: 20 })])
  return [...fresh.rows, ...accepted.rows.reverse()]
    .filter((row) => row.id !== notId)
    .map((row) => ({ value: row.id, label: `${row.number} ${row.summary}, ${row.placeCode ?? ''}` }))
}
