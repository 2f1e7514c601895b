import type { Route } from '#server/kit'
import approveOrder from './approveOrder'
import archiveOrder from './archiveOrder'
import cancelOrder from './cancelOrder'
import checkOrder from './checkOrder'
import closeOrder from './closeOrder'
import discardOrder from './discardOrder'
import editHold from './editHold'
import editOrder from './editOrder'
import editTarget from './editTarget'
import holdOrder from './holdOrder'
import joinGroup from './joinGroup'
import leaveGroup from './leaveGroup'
import listOrders from './listOrders'
import readAttachment from './readAttachment'
import readAgreement from './readAgreement'
import readOrder from './readOrderSheet'
import readOrderTimeline from './readOrderTimeline'
import readPromises from './readPromises'
import recallOrder from './recallOrder'
import reopenOrder from './reopenOrder'
import restoreOrder from './restoreOrder'
import resumeOrder from './resumeOrder'
import askAgainOrder from './askAgainOrder'
import sendBackOrder from './sendBackOrder'
import submitOrder from './submitOrder'

import { ownStateRoutes } from './ownStates'

export * from './asks'
export * from './ruleBook'
export * from './promises'
export * from './beginOrder'
export * from './noteOutcome'
export * from './facts'
export * from './followAsset'
export * from './orderRecord'
export * from './orderLine'
export { sharesOf } from './orderRows'
export { readOrderSheet } from './readOrderSheet'
export { archive } from './archiveOrder'
export { restore } from './restoreOrder'
export { takeOut } from './leaveGroup'
export * from './lockOrder'
export * from './orderMove'
export * from './seenOrder'
export * from './sendFile'
export * from './targetOf'
export * from './timelineOf'
export * from './whoIsOn'
export * from './mails'
export * from './works'
export * from './orderOf'
export const routes: Route[] = [
  ...ownStateRoutes,
  listOrders,
  readOrder,
  readAgreement,
  readOrderTimeline,
  editOrder,
  submitOrder,
  approveOrder,
  sendBackOrder,
  askAgainOrder,
  recallOrder,
  holdOrder,
  resumeOrder,
  reopenOrder,
  checkOrder,
  closeOrder,
  cancelOrder,
  discardOrder,
  restoreOrder,
  archiveOrder,
  joinGroup,
  leaveGroup,
  readAttachment,
  readPromises,
  editTarget,
  editHold,
]
