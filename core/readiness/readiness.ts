/** How a space stands for whoever wants to use it; the worst last. */
export const READINESS = ['ready', 'needs_cleaning', 'out_of_use'] as const
export type Readiness = (typeof READINESS)[number]
export const READINESS_NAMES: Record<Readiness, string> = { ready: 'Ready', needs_cleaning: 'Needs cleaning', out_of_use: 'Out of use' }

/** What a space is left in by several methods: the worst of what they say; null where none says anything. */
export function worstOf(left: readonly (Readiness | null)[]): Readiness | null {
  const said = left.filter((one) => one !== null)
  return said.length ? said.reduce((worst, one) => (READINESS.indexOf(one) > READINESS.indexOf(worst) ? one : worst)) : null
}

/** How many of a building's spaces stand how; those of which nobody said anything apart. */
export type ReadinessCounts = Record<Readiness | 'unsaid', number>
export function readinessCounts(spaces: readonly { state: Readiness | null }[]): ReadinessCounts {
  const counts: ReadinessCounts = { ready: 0, needs_cleaning: 0, out_of_use: 0, unsaid: 0 }
  for (const { state } of spaces) counts[state ?? 'unsaid']++
  return counts
}
