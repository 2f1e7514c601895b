import type { Route } from '#server/kit'
import findAssets from './findAssets'
import findPlaces from './findPlaces'
import printLabels from './printLabels'
import readAssetSays from './readAssetSays'
import readContext from './readContext'
import readRegister from './readRegister'

export * from './namePlace'
export * from './words'
export * from './spots'
export * from './siteSettings'
export * from './takePlaces'
export const routes: Route[] = [findPlaces, findAssets, readAssetSays, readContext, readRegister, printLabels]
