import type { Route } from '#server/kit'
import findAssets from './findAssets'
import findPlaces from './findPlaces'
import printLabels from './printLabels'
import readContext from './readContext'
import readRegister from './readRegister'
import searchEverything from './searchEverything'

export * from './namePlace'
export * from './words'
export * from './spots'
export const routes: Route[] = [findPlaces, findAssets, readContext, searchEverything, readRegister, printLabels]
