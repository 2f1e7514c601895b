import { HAZARD_TABLE } from './hazard'
import type { HazardTable } from './hazard'
import { DEFAULT_MATRIX } from './priority'
import type { PriorityMatrix } from './priority'

/** By what a site makes a priority: from consequence and urgency, and from hazards. */
export interface PriorityRules {
  matrix: PriorityMatrix
  hazards: HazardTable
}

/** What a site starts with. */
export const USUAL_PRIORITY_RULES: PriorityRules = { matrix: DEFAULT_MATRIX, hazards: HAZARD_TABLE }
