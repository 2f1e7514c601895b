import type { Route } from '#server/kit'
import readPortraitCosts from './readPortraitCosts'
import readPortraitTimeline from './readPortraitTimeline'
import readPortraitWork from './readPortraitWork'
import readTree from './readTree'
import readTreePath from './readTreePath'

export * from './keepers'
export const routes: Route[] = [readPortraitWork, readPortraitCosts, readPortraitTimeline, readTree, readTreePath]
