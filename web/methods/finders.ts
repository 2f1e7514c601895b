import { findParts } from '#contract/field'
import { listRecordLines } from '#contract/lists'
import { call } from '#web/kit'
import type { Choice } from '#web/kit'

/** Parts by part of their name or code. */
export async function partChoices(q: string): Promise<Choice[]> {
  return (await call(findParts, { q })).rows.map(({ id, code, name, unit }) => ({ value: id, label: `${code} ${name}, ${unit}` }))
}

/** Equipment that is lent to jobs, by part of its name or tag. */
export async function equipmentChoices(q: string): Promise<Choice[]> {
  const ask = q.trim() ? `words=${encodeURIComponent(q.trim())}` : ''
  return (await call(listRecordLines, { register: 'equipment', ask, limit: 20 })).rows.map(({ id, number, heading }) => ({
    value: id,
    label: `${number} ${heading}`,
  }))
}
