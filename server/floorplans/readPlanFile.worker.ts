import { readPlanFile } from '#core/floorplans'
import type { KnownPlan, ReadPlan } from '#core/floorplans'

export interface PlanJob {
  content: Uint8Array
  known: KnownPlan
}

/** A plan may be large: read and held against what is there away from the thread that answers. */
export default function read({ content, known }: PlanJob): ReadPlan | { wrong: string } {
  try {
    return readPlanFile(new TextDecoder('utf-8', { fatal: true }).decode(content), known)
  } catch {
    return { wrong: 'The file is not written in UTF-8, as GeoJSON is (RFC 8259, 8.1).' }
  }
}
