import type { Route } from '#server/kit'
import { closeSpace, endClosure, moveClosure } from './changeClosure'
import { checkSpace, listPlaceClosures, readOrderClosures, readSpaceFree } from './readClosures'

export { closureMails, closureWorks } from './closureTeller'
export const routes: Route[] = [readOrderClosures, listPlaceClosures, checkSpace, readSpaceFree, closeSpace, moveClosure, endClosure]
