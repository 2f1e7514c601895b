import * as contract from '#contract/vendors'
import type { Route } from '#server/kit'
import { recordRoutes } from '#server/registers'
import { acceptVisit, declineVisit, proposeTime } from './answers'
import { bringPart, dropPart } from './brought'
import enterBill from './enterBill'
import { vendorKeeper } from './keeper'
import { addPassFile, readBillFile, readPassFile } from './passFiles'
import { reachRoutes } from './reach'
import renewPass from './renewPass'
import * as work from './work'

export { vendorWorks } from './answerWatch'
export { vendorMails } from './mails'
export * from './keeper'
export { openPass } from './openPass'
export { passCommand } from './passCommand'
export const routes: Route[] = [
  ...Object.values(work),
  acceptVisit,
  proposeTime,
  declineVisit,
  enterBill,
  bringPart,
  dropPart,
  addPassFile,
  readPassFile,
  readBillFile,
  renewPass,
  ...reachRoutes,
  ...recordRoutes(vendorKeeper, {
    read: contract.readVendor,
    add: contract.addVendor,
    edit: contract.editVendor,
    retire: contract.retireVendor,
    restore: contract.restoreVendor,
  }),
]
