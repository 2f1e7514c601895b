import type { Priority, PriorityVerdict } from './priority'
import { PRIORITIES, PRIORITY_NAMES } from './priority'

export const SEVERITIES = ['catastrophic', 'critical', 'marginal', 'negligible'] as const
export type Severity = (typeof SEVERITIES)[number]

export const LIKELIHOODS = ['frequent', 'probable', 'occasional', 'remote', 'improbable'] as const
export type Likelihood = (typeof LIKELIHOODS)[number]

export type HazardLevel = 'high' | 'serious' | 'medium' | 'low'

export const SEVERITY_NAMES: Record<Severity, string> = { catastrophic: 'Catastrophic', critical: 'Critical', marginal: 'Marginal', negligible: 'Negligible' }
export const LIKELIHOOD_NAMES: Record<Likelihood, string> = {
  frequent: 'Frequent',
  probable: 'Probable',
  occasional: 'Occasional',
  remote: 'Remote',
  improbable: 'Improbable',
}
export const HAZARD_LEVEL_NAMES: Record<HazardLevel, string> = { high: 'High', serious: 'Serious', medium: 'Medium', low: 'Low' }

export const HAZARD_LEVELS: readonly HazardLevel[] = ['high', 'serious', 'medium', 'low']

/** For each likelihood the level of each severity, catastrophic first. */
export type HazardTable = Record<Likelihood, HazardLevel[]>

/** Source: MIL-STD-882E (2012), table III, as given in the design notes (from memory). Setup holds the one in force. */
export const HAZARD_TABLE: HazardTable = {
  frequent: ['high', 'high', 'serious', 'medium'],
  probable: ['high', 'high', 'serious', 'medium'],
  occasional: ['high', 'serious', 'medium', 'low'],
  remote: ['serious', 'medium', 'medium', 'low'],
  improbable: ['medium', 'medium', 'medium', 'low'],
}

/** Risk level of a hazard from its severity and likelihood. Source: MIL-STD-882E, table III. */
export function hazardLevel(severity: Severity, likelihood: Likelihood, table: HazardTable = HAZARD_TABLE): HazardLevel {
  return table[likelihood][SEVERITIES.indexOf(severity)]!
}

/** A high hazard is never less than an emergency; lower levels leave the priority alone. */
export function priorityWithHazard(priority: Priority, level: HazardLevel | null): Priority {
  if (level === 'high') return PRIORITIES[0]
  return priority
}

/** What was said of a hazard; `none` means somebody looked and there is none. */
export interface HazardSaid {
  hazardSeverity: Severity | 'none' | null
  hazardLikelihood: Likelihood | null
}

/** The level of what was said, or null while it is not said whole. */
export function levelSaid(said: HazardSaid, table: HazardTable): HazardLevel | null {
  const { hazardSeverity, hazardLikelihood } = said
  return hazardSeverity && hazardSeverity !== 'none' && hazardLikelihood ? hazardLevel(hazardSeverity, hazardLikelihood, table) : null
}

/** A priority with its sentence, raised where the hazard demands it; a high hazard needs nothing else to be said. */
export function raisedByHazard(verdict: PriorityVerdict | null, level: HazardLevel | null): PriorityVerdict | null {
  if (!verdict) return level === 'high' ? { priority: 'emergency', sentence: 'Emergency, because its hazard is high.' } : null
  const priority = priorityWithHazard(verdict.priority, level)
  return priority === verdict.priority
    ? verdict
    : { priority, sentence: `${PRIORITY_NAMES[priority]}, because its hazard is high; without it: ${verdict.sentence}` }
}
