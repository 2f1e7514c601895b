import type { Route } from '#server/kit'
import listBestFits from './listBestFits'
import readBoard from './readBoard'
import readBoardPerson from './readBoardPerson'
import rearrange from './rearrange'

export * from './crewOf'
export * from './days'
export * from './readyOf'
export { rearrangeWithin } from './rearrange'
export const routes: Route[] = [readBoard, rearrange, readBoardPerson, listBestFits]
