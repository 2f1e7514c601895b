import type { Route } from '#server/kit'
import { addDowntime, dropDowntime, endDowntime, readDowntimes, sayDowntime } from './downtimes'

export { sayDowntimeOn } from './downtimes'
export const routes: Route[] = [readDowntimes, addDowntime, endDowntime, dropDowntime, sayDowntime]
