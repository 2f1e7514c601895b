import type { Route } from '#server/kit'
import findScanned from './findScanned'
import readPortraitCosts from './readPortraitCosts'
import readPortraitMovements from './readPortraitMovements'
import readPortraitTalk from './readPortraitTalk'
import readPortraitTimeline from './readPortraitTimeline'
import readPortraitUpkeep from './readPortraitUpkeep'
import readPortraitWork from './readPortraitWork'
import readTree from './readTree'
import readTreePath from './readTreePath'

export * from './keepers'
export const routes: Route[] = [
  findScanned,
  readPortraitWork,
  readPortraitCosts,
  readPortraitTimeline,
  readPortraitUpkeep,
  readPortraitMovements,
  readPortraitTalk,
  readTree,
  readTreePath,
]
