import { listOrders } from '#contract/orders'
import { listRequests } from '#contract/requests'
import { call } from '#web/kit'
import type { Choice } from '#web/kit'

/** Requests that another can be joined to, by number, words or place. */
export async function findOpenRequests(q: string, notId: number): Promise<Choice[]> {
  const [fresh, accepted] = await Promise.all([call(listRequests, { q, state: 'new', limit: 10 }), call(listRequests, { q, state: 'accepted', limit: 20 })])
  return [...fresh.rows, ...accepted.rows.reverse()]
    .filter((row) => row.id !== notId)
    .map((row) => ({ value: row.id, label: `${row.number} ${row.summary}, ${row.place ?? ''}` }))
}

/** Orders a request can still be accepted into: those not finished yet, the furthest along first. */
export async function findOpenOrders(q: string): Promise<Choice[]> {
  const stations = await Promise.all((['field', 'dispatch', 'planning'] as const).map((station) => call(listOrders, { q, station, limit: 10 })))
  return stations.flatMap(({ rows }) => rows).map((row) => ({ value: row.id, label: `${row.number} ${row.summary}, ${row.place ?? ''}` }))
}
