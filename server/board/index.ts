import type { Route } from '#server/kit'
import listBestFits from './listBestFits'
import readBoard from './readBoard'
import readBoardPerson from './readBoardPerson'
import rearrange from './rearrange'

export const routes: Route[] = [readBoard, rearrange, readBoardPerson, listBestFits]
