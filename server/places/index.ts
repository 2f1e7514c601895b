import * as contract from '#contract/places'
import type { Route } from '#server/kit'
import { recordRoutes } from '#server/registers'
import findAssets from './findAssets'
import findPlaces from './findPlaces'
import { placeKeeper } from './keeper'
import printLabels from './printLabels'
import readAssetSays from './readAssetSays'
import readContext from './readContext'

export * from './keeper'
export * from './namePlace'
export * from './payersAlong'
export * from './words'
export * from './spots'
export * from './siteSettings'
export * from './takePlaces'
export const routes: Route[] = [
  findPlaces,
  findAssets,
  readAssetSays,
  readContext,
  printLabels,
  ...recordRoutes(placeKeeper, {
    read: contract.readPlace,
    add: contract.addPlace,
    edit: contract.editPlace,
    retire: contract.retirePlace,
    restore: contract.restorePlace,
  }),
]
