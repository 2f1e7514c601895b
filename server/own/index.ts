import type { Route } from '#server/kit'
import addOwnField from './addOwnField'
import editOwn from './editOwn'
import editOwnField from './editOwnField'
import listOwnFields from './listOwnFields'
import readOwn from './readOwn'

export * from './ownFields'
export * from './ownSheet'
export * from './takeOwnValues'
// What has a name of its own before what has a kind in its place.
export const routes: Route[] = [listOwnFields, addOwnField, editOwnField, readOwn, editOwn]
