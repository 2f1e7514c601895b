import { findParts } from '#contract/field'
import { listRecordLines } from '#contract/lists'
import { call } from '#web/kit'
import type { Choice } from '#web/kit'

/** Parts by part of their name or code. */
export async function partChoices(q: string): Promise<Choice[]> {
  return (await call(findParts, { q })).rows.map(({ id, code, name, unit }) => ({ value: id, label: `${code} ${name}, ${unit}` }))
}

/** Records of a register without a finder of its own, by their words. */
const recordChoices =
  (register: 'stores' | 'equipment', called: (line: { number: string; heading: string }) => string) =>
  async (q: string): Promise<Choice[]> => {
    const ask = q.trim() ? `words=${encodeURIComponent(q.trim())}` : ''
    return (await call(listRecordLines, { register, ask, limit: 20 })).rows.map((line) => ({ value: line.id, label: called(line) }))
  }

export const storeChoices = recordChoices('stores', ({ heading }) => heading)
/** Equipment that is lent to jobs. */
export const equipmentChoices = recordChoices('equipment', ({ number, heading }) => `${number} ${heading}`)
