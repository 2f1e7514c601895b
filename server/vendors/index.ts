import * as contract from '#contract/vendors'
import type { Route } from '#server/kit'
import { recordRoutes } from '#server/registers'
import addVendorNote from './addVendorNote'
import addVendorPhoto from './addVendorPhoto'
import { acceptVisit, declineVisit, proposeTime } from './answers'
import enterBill from './enterBill'
import finishVendorJob from './finishVendorJob'
import { vendorKeeper } from './keeper'
import { reachRoutes } from './reach'
import readPass from './readPass'
import stopVendorClock from './stopVendorClock'
import switchVendorStint from './switchVendorStint'

export { vendorWorks } from './answerWatch'
export { vendorMails } from './mails'
export * from './keeper'
export { openPass } from './openPass'
export const routes: Route[] = [
  readPass,
  acceptVisit,
  proposeTime,
  declineVisit,
  switchVendorStint,
  stopVendorClock,
  addVendorNote,
  addVendorPhoto,
  enterBill,
  finishVendorJob,
  ...reachRoutes,
  ...recordRoutes(vendorKeeper, {
    read: contract.readVendor,
    add: contract.addVendor,
    edit: contract.editVendor,
    retire: contract.retireVendor,
    restore: contract.restoreVendor,
  }),
]
