import type { Route } from '#server/kit'
import { agreeWindow, offerTimes, readOrderWindows, withdrawTimes } from './offers'
import { chooseTime, listTrackedTimes, readTimes, sayNoneFits } from './times'

export { windowMails } from './mails'
export const routes: Route[] = [readOrderWindows, offerTimes, withdrawTimes, agreeWindow, readTimes, chooseTime, sayNoneFits, listTrackedTimes]
