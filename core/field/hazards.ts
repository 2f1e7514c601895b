import { refuse } from '#core/kit'
import type { StintKind } from '#core/ledger'
import { PERMIT_NAMES } from '#core/methods'
import type { HazardLine, Permit } from '#core/methods'

/** Leave in writing to do dangerous work, as it was written down on the job. */
export interface PermitHeld {
  kind: Permit
  number: string
  fromAt: Date
  untilAt: Date
}

/** What somebody read: once the hazards are others, they are read anew. */
export const hazardsAsRead = (hazards: readonly HazardLine[]): string =>
  JSON.stringify(hazards.map(({ hazard, control, permit }) => [hazard, control, permit ?? null]))

/** Permits that hazards take and nobody holds at a moment. One begins with its first minute and is over with its last. */
export function permitsMissing(hazards: readonly HazardLine[], held: readonly PermitHeld[], at: Date): Permit[] {
  const needed = [...new Set(hazards.flatMap(({ permit }) => permit ?? []))]
  return needed.filter((kind) => !held.some((one) => one.kind === kind && one.fromAt <= at && at < one.untilAt))
}

/**
 * Work on a job with hazards begins once whoever does it has read them, and holds the permits they take (common practice,
 * no source). Getting there, waiting and breaks need neither.
 *
 * @param read as `hazardsAsRead` told what they read last; null for nothing
 * @throws Refusal with what comes first
 */
export function refuseUnsafe(kind: StintKind, hazards: readonly HazardLine[], read: string | null, held: readonly PermitHeld[], at: Date): void {
  if (kind !== 'work' || !hazards.length) return
  if (read !== hazardsAsRead(hazards)) refuse('hazards_unread', 'Read the hazards of this job before you work on it.', 'hazards')
  const [missing] = permitsMissing(hazards, held, at)
  if (missing) refuse('permit_missing', `This takes a permit: ${PERMIT_NAMES[missing].toLowerCase()}. Write down its number and times first.`, 'permit')
}
