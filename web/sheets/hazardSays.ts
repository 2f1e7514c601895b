import { HAZARD_LEVEL_NAMES, LIKELIHOOD_NAMES, SEVERITIES, SEVERITY_NAMES } from '#core/requests'
import type { HazardSaid, PriorityRules } from '#core/requests'

/** What is known of the hazard, in words; null where nothing is said of one. */
export function hazardSays({ decides, hazardSeverity, hazardLikelihood }: HazardSaid & { decides: Pick<PriorityRules, 'hazards'> }): string | null {
  if (hazardSeverity === 'none') return 'There is none'
  if (!hazardSeverity) return null
  if (!hazardLikelihood) return SEVERITY_NAMES[hazardSeverity]
  const level = HAZARD_LEVEL_NAMES[decides.hazards[hazardLikelihood][SEVERITIES.indexOf(hazardSeverity)]!].toLowerCase()
  return `${SEVERITY_NAMES[hazardSeverity]}, ${LIKELIHOOD_NAMES[hazardLikelihood].toLowerCase()}: ${level} hazard`
}
