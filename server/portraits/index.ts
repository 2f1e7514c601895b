import type { Route } from '#server/kit'
import findScanned from './findScanned'
import readPortraitCosts from './readPortraitCosts'
import readPortraitTimeline from './readPortraitTimeline'
import readPortraitWork from './readPortraitWork'
import readTree from './readTree'
import readTreePath from './readTreePath'

export * from './keepers'
export const routes: Route[] = [findScanned, readPortraitWork, readPortraitCosts, readPortraitTimeline, readTree, readTreePath]
