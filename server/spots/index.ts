import type { Route } from '#server/kit'
import { findSpot, readSpot } from './readSpot'
import { addReportPhoto, addSentReportPhoto, askedAgain, reportHere } from './report'
import startHere from './startHere'

export const routes: Route[] = [findSpot, readSpot, reportHere, addReportPhoto, addSentReportPhoto, startHere, askedAgain]
