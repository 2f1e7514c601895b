import type { Route } from '#server/kit'
import acceptRequest from './acceptRequest'
import answerQuestion from './answerQuestion'
import askReporter from './askReporter'
import declineRequest from './declineRequest'
import enterCall from './enterCall'
import findCounterPlaces from './findCounterPlaces'
import joinRequest from './joinRequest'
import listRequests from './listRequests'
import readCounter from './readCounter'
import readRequest from './readRequestSheet'
import readTrackedPhoto from './readTrackedPhoto'
import reportRequest from './reportRequest'
import takeUpRequest from './takeUpRequest'
import trackRequest from './trackRequest'
import triageRequest from './triageRequest'
import uploadCounterPhoto from './uploadCounterPhoto'

export * from './stations'
export const routes: Route[] = [
  readCounter,
  findCounterPlaces,
  uploadCounterPhoto,
  reportRequest,
  trackRequest,
  answerQuestion,
  readTrackedPhoto,
  listRequests,
  readRequest,
  triageRequest,
  takeUpRequest,
  acceptRequest,
  askReporter,
  declineRequest,
  joinRequest,
  enterCall,
]
