import type { CrewRow } from '#contract/field'
import { STINT_KIND_NAMES } from '#core/ledger'

/** What the row of somebody says while they are on a job, or should be: where, and what is worth a look. By the key of their row. */
export function crewSays(rows: readonly CrewRow[], time: (instant: string) => string): Map<string, string> {
  return new Map(rows.flatMap((row) => (row.technicianId === null ? [] : [[`t${row.technicianId}`, saysOf(row, time)]])))
}

function saysOf({ job, kind, since, next, signs }: CrewRow, time: (instant: string) => string): string {
  const signed = signs.map(({ says }) => says).join(', ')
  if (job) return `${job.number}: ${signed || `${kind ? STINT_KIND_NAMES[kind].toLowerCase() : 'there'} since ${time(since!)}`}`
  return `${next!.number}: ${signed || `begins at ${time(next!.plannedStart)}`}`
}
