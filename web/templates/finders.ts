import { listRecordLines } from '#contract/lists'
import { call } from '#web/kit'
import type { Choice } from '#web/kit'

/** Methods by their code or name. */
export async function methodChoices(q: string): Promise<Choice[]> {
  const ask = q.trim() ? `words=${encodeURIComponent(q.trim())}` : ''
  return (await call(listRecordLines, { register: 'methods', ask, limit: 20 })).rows.map((line) => ({
    value: line.id,
    label: `${line.number} ${line.heading}`,
  }))
}
