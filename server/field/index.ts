import type { Route } from '#server/kit'
import { addJobPhoto, addSentPhoto } from './addJobPhoto'
import addNote from './addNote'
import { addSentSignature, addSignature } from './addSignature'
import { checkIn, readLoneWork, setLoneWork } from './alone'
import carryJobs from './carryJobs'
import correctStint from './correctStint'
import findParts from './findParts'
import finishJob from './finishJob'
import listJobs from './listJobs'
import { askForPart, bringPartBack, usePart } from './parts'
import readCrewNow from './readCrewNow'
import readJob from './readJob'
import { holdPermit, readHazards } from './safetyActs'
import readOutcomeLists from './readOutcomeLists'
import stopClock from './stopClock'
import switchStint from './switchStint'
import tellUnsent from './tellUnsent'

export { clockOf, notesOf } from './jobSheet'
export { fieldWorks } from './alone'
export { fieldMails } from './mails'
export { jobCommand, momentFor, preparedJobCommand, sentPictureCommand } from './jobCommand'
export type { JobContext } from './jobCommand'
export { myVisit } from './myVisit'
export { finishVisit } from './finishVisit'
export { keepPhoto } from './keepPhoto'
export type { OnSite } from './onSite'
export { addPhotoOn } from './addJobPhoto'
export { checkInOn } from './alone'
export { correctStintOn } from './correctStint'
export { jobAlone } from './loneRows'
export { signOn } from './addSignature'
export { holdPermitOn, readHazardsOn } from './safetyActs'
export { refuseUnsafeStart, safetyOf } from './safety'
export { stopClockOf, switchStintOf } from './stint'
export const routes: Route[] = [
  listJobs,
  carryJobs,
  readJob,
  readCrewNow,
  readHazards,
  holdPermit,
  checkIn,
  readLoneWork,
  setLoneWork,
  switchStint,
  stopClock,
  correctStint,
  usePart,
  bringPartBack,
  askForPart,
  findParts,
  addNote,
  addJobPhoto,
  addSentPhoto,
  addSignature,
  addSentSignature,
  finishJob,
  tellUnsent,
  readOutcomeLists,
]
