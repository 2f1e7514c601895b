import type { Route } from '#server/kit'
import { dropWay, readPlaceWays, sayWay } from './said'

export { learnWays } from './learn'
export { wayFacts, waysBetween } from './ways'
export const routes: Route[] = [readPlaceWays, sayWay, dropWay]
