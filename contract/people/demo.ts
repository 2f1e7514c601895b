import { endpoint } from '#contract/kit'
import type { Role } from '#core/people'

/** Whom somebody can come in as to look around; nobody outside a demo world. */
export interface DemoPeople {
  password: string | null
  /** Limits in minor units. */
  rows: { name: string; email: string; roles: Role[]; approvalLimitMinor: number | null }[]
}

export const readDemoPeople = endpoint<object, DemoPeople>({
  method: 'GET',
  path: '/api/demo-people',
  says: 'The people of a demo world, for its sign-in page. Empty in every other.',
  may: 'public',
})
