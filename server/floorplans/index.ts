import type { Route } from '#server/kit'
import { listCounterPlans, readCounterPlan } from './counterPlans'
import eraseSpace from './eraseSpace'
import findOnFloorplan from './findOnFloorplan'
import giveFloorplan from './giveFloorplan'
import layPicture from './layPicture'
import listFloorplans from './listFloorplans'
import movePicture from './movePicture'
import movePin from './movePin'
import readFloorplan from './readFloorplan'
import takeFloorplan from './takeFloorplan'

export const routes: Route[] = [
  listFloorplans,
  findOnFloorplan,
  readFloorplan,
  movePin,
  eraseSpace,
  takeFloorplan,
  giveFloorplan,
  layPicture,
  movePicture,
  listCounterPlans,
  readCounterPlan,
]
