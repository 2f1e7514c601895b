import type { Route } from '#server/kit'
import { joinFindings, makeFindingOrders, setFindingsAside, takeUpFinding } from './decideFindings'
import { listFindings, readOrderFindings } from './listFindings'
import readSurroundings from './readSurroundings'
import { addFinding, addFindingPhoto, addSentFindingPhoto, takeBackFinding } from './recordFinding'

export { findingMails } from './mails'
export { addFindingOn, addFindingPhotoOn, takeBackFindingOn } from './recordFinding'
export const routes: Route[] = [
  addFinding,
  addFindingPhoto,
  addSentFindingPhoto,
  takeBackFinding,
  readSurroundings,
  listFindings,
  readOrderFindings,
  makeFindingOrders,
  joinFindings,
  setFindingsAside,
  takeUpFinding,
]
