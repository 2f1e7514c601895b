import type { Route } from '#server/kit'
import dispatchOrder from './dispatchOrder'
import listCandidates from './listCandidates'
import keepTime from './keepTime'
import revokePass from './revokePass'
export * from './asking'
export * from './mails'

export const routes: Route[] = [listCandidates, dispatchOrder, revokePass, keepTime]
