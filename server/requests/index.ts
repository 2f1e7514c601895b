import type { Route } from '#server/kit'
import acceptRequest from './acceptRequest'
import answerQuestion from './answerQuestion'
import askReporter from './askReporter'
import declineRequest from './declineRequest'
import enterCall from './enterCall'
import findCounterSpots from './findCounterSpots'
import joinRequest from './joinRequest'
import listRequests from './listRequests'
import makeAnotherOrder from './makeAnotherOrder'
import readCounter from './readCounter'
import readConversation from './readConversation'
import readRequest from './readRequestSheet'
import readRequestTimeline from './readRequestTimeline'
import readTrackedFile from './readTrackedFile'
import reportRequest from './reportRequest'
import takeUpRequest from './takeUpRequest'
import trackRequest from './trackRequest'
import triageRequest from './triageRequest'
import undoOutcome from './undoOutcome'
import uploadCounterFile from './uploadCounterFile'

import askForMine from './askForMine'
import findSummaries from './findSummaries'
import findTwins from './findTwins'
import readClaimedFile from './readClaimedFile'
import confirmFollow from './confirmFollow'
import followRequest from './followRequest'
import readAround from './readAround'
import readCaller from './readCaller'
import readCounterSpot from './readCounterSpot'
import readMine from './readMine'
import readSuggestions from './readSuggestions'
import sayFixed from './sayFixed'
import sayNotFixed from './sayNotFixed'
import uploadTrackedFile from './uploadTrackedFile'
import writeAsReporter from './writeAsReporter'
import writeComment from './writeComment'
export * from './categoryForms'
export * from './keepCategory'
export * from './requestLine'
export * from './conversation'
export * from './createRequest'
export * from './facts'
export * from './followAsset'
export * from './saveRequestMove'
export { decline } from './declineRequest'
export { takeUp } from './takeUpRequest'
export * from './siteByCode'
export * from './stations'
export * from './strangerMail'
export * from './tracked'
export { beginHere } from './beginHere'
export { noteOn } from './noteOn'
export { messageReporters, pictureForReporters } from './messageFrom'
export { knownHere, workHere } from './knownHere'
export * from './mails'
export * from './tellReporters'
export * from './sweepReporterLinks'
export const routes: Route[] = [
  readCounter,
  findCounterSpots,
  uploadCounterFile,
  reportRequest,
  trackRequest,
  answerQuestion,
  readTrackedFile,
  listRequests,
  readRequest,
  readConversation,
  readRequestTimeline,
  triageRequest,
  takeUpRequest,
  acceptRequest,
  askReporter,
  declineRequest,
  joinRequest,
  makeAnotherOrder,
  undoOutcome,
  enterCall,
  askForMine,
  findSummaries,
  findTwins,
  followRequest,
  confirmFollow,
  readClaimedFile,
  readAround,
  readCaller,
  readCounterSpot,
  readMine,
  readSuggestions,
  sayFixed,
  sayNotFixed,
  uploadTrackedFile,
  writeAsReporter,
  writeComment,
]
