import type { StepState } from './steps'

/** How an inspection stands, as its steps say. */
export type InspectionState = 'not_started' | 'under_way' | 'clean' | 'with_findings'
export const INSPECTION_NAMES: Record<InspectionState, string> = {
  not_started: 'Not started',
  under_way: 'Under way, clean so far',
  clean: 'Clean',
  with_findings: 'With findings',
}

/**
 * Never said by anybody, always by the steps and by what was found: one value outside its limits is a finding, and clean is what has been gone
 * through to the end without one. What was left out is gone through.
 *
 * @param found how much was found on the way, besides what the steps asked for
 * @returns null where there are neither steps nor findings to go by
 */
export function inspectionState(steps: readonly { state: StepState | string; outside: boolean }[], found = 0): InspectionState | null {
  if (found) return 'with_findings'
  if (!steps.length) return null
  if (steps.some(({ outside }) => outside)) return 'with_findings'
  const open = steps.filter(({ state }) => state === 'open').length
  if (open === steps.length) return 'not_started'
  return open ? 'under_way' : 'clean'
}
