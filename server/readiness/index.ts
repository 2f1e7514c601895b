import type { Route } from '#server/kit'
import { listReadiness, readReadiness, sayReadiness } from './readiness'

export { leaveSpace } from './readiness'
export const routes: Route[] = [listReadiness, readReadiness, sayReadiness]
