import type { Priority } from './priority'
import { PRIORITIES } from './priority'

export const SEVERITIES = ['catastrophic', 'critical', 'marginal', 'negligible'] as const
export type Severity = (typeof SEVERITIES)[number]

export const LIKELIHOODS = ['frequent', 'probable', 'occasional', 'remote', 'improbable'] as const
export type Likelihood = (typeof LIKELIHOODS)[number]

export type HazardLevel = 'high' | 'serious' | 'medium' | 'low'

/** Source: MIL-STD-882E (2012), table III, as given in the design notes (from memory). */
const TABLE: Record<Likelihood, HazardLevel[]> = {
  frequent: ['high', 'high', 'serious', 'medium'],
  probable: ['high', 'high', 'serious', 'medium'],
  occasional: ['high', 'serious', 'medium', 'low'],
  remote: ['serious', 'medium', 'medium', 'low'],
  improbable: ['medium', 'medium', 'medium', 'low'],
}

/** Risk level of a hazard from its severity and likelihood. Source: MIL-STD-882E, table III. */
export function hazardLevel(severity: Severity, likelihood: Likelihood): HazardLevel {
  return TABLE[likelihood][SEVERITIES.indexOf(severity)]!
}

/** A high hazard is never less than an emergency; lower levels leave the priority alone. */
export function priorityWithHazard(priority: Priority, level: HazardLevel | null): Priority {
  if (level === 'high') return PRIORITIES[0]
  return priority
}
