import type { Route } from '#server/kit'
import { askLeave, decideLeave, listLeaveAsks, readMyTime, withdrawLeave } from './leave'
import { addSwap, dropSwap, keepRota, listOnCall, readRota } from './onCall'
import takeLeaveFile from './takeLeaveFile'

export { shiftMails } from './mails'
export { onCallAt } from './onCall'
export const routes: Route[] = [
  readMyTime,
  askLeave,
  withdrawLeave,
  listLeaveAsks,
  decideLeave,
  takeLeaveFile,
  readRota,
  keepRota,
  addSwap,
  dropSwap,
  listOnCall,
]
