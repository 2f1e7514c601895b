import type { Route } from '#server/kit'
import addVendorNote from './addVendorNote'
import addVendorPhoto from './addVendorPhoto'
import enterBill from './enterBill'
import finishVendorJob from './finishVendorJob'
import readPass from './readPass'
import stopVendorClock from './stopVendorClock'
import switchVendorStint from './switchVendorStint'

export const routes: Route[] = [readPass, switchVendorStint, stopVendorClock, addVendorNote, addVendorPhoto, enterBill, finishVendorJob]
