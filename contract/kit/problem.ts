import type { Reason } from '#core/kit'

/** RFC 9457 problem details, with one sentence for each thing that stands in the way. */
export interface Problem {
  type: string
  title: string
  status: number
  detail: string
  reasons?: Reason[]
  /** On a conflict: what is there now, beside what was sent. */
  conflict?: { field: string; theirs: unknown; yours: unknown }[]
  version?: number
}
