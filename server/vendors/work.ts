import * as contract from '#contract/vendors'
import { refuseAdditions } from '#core/field'
import { nameWhoIsThere } from '#server/dispatch/records'
import { sayDowntimeOn } from '#server/downtimes'
import {
  addPhotoOn,
  checkInOn,
  correctStintOn,
  finishVisit,
  holdPermitOn,
  readHazardsOn,
  refuseUnsafeStart,
  signOn,
  stopClockOf,
  switchStintOf,
} from '#server/field'
import { addFindingOn, addFindingPhotoOn, takeBackFindingOn } from '#server/findings'
import { query } from '#server/kit'
import { doStepOnSite, pictureStepOnSite, undoStepOnSite } from '#server/methods'
import { addReadingOn } from '#server/meters'
import { pictureSaid, sayOn } from '#server/talk'
import { passCommand, picturePassCommand } from './passCommand'
import { readPassSheet } from './passSheet'

/** What a vendor does on the job by their pass: the same as our own people do, by the same rules. */
export const readPass = query(contract.readPass, ({ db, input, now, service }) => readPassSheet(db, service, input.token, now))

export const switchVendorStint = passCommand(contract.switchVendorStint, async ({ tx, input, visit, order, at, actor }) => {
  if (visit.state !== 'ended') await refuseUnsafeStart(tx, order.id, visit, input.kind, at)
  await switchStintOf(tx, actor, order, visit, input.kind, at)
})
export const stopVendorClock = passCommand(contract.stopVendorClock, ({ tx, input, visit, order, at, actor }) =>
  stopClockOf(tx, actor, order, visit, at, input.stoppedAt ? new Date(input.stoppedAt) : null),
)

export const correctVendorStint = passCommand(contract.correctVendorStint, (job) => correctStintOn(job, job.input))
export const checkInByPass = passCommand(contract.checkInByPass, checkInOn)
export const sayWhoIsThere = passCommand(contract.sayWhoIsThere, async ({ tx, input, visit, order, tell }) => {
  refuseAdditions(order.state)
  const there = { name: input.name, phone: input.phone || null }
  if (there.name === visit.thereName && there.phone === visit.therePhone) return
  await nameWhoIsThere(tx, visit.id, there)
  await tell({ kind: 'lone.there', siteId: order.siteId, orderId: order.id, visitId: visit.id, details: there })
})

export const readPassHazards = passCommand(contract.readPassHazards, (job) => readHazardsOn(job, job.input.read))
export const holdPassPermit = passCommand(contract.holdPassPermit, (job) => holdPermitOn(job, job.input))

export const addVendorNote = passCommand(contract.addVendorNote, async ({ input, order, visit, tell }) => {
  refuseAdditions(order.state)
  await tell({ kind: 'field.note', siteId: order.siteId, orderId: order.id, visitId: visit.id, reason: input.text })
})
export const addVendorPhoto = picturePassCommand(contract.addVendorPhoto, (job) => addPhotoOn(job, job.input.stage, job.ready))
export const signPass = picturePassCommand(contract.signPass, (job) => signOn(job, job.input.name, job.ready))

export const addPassFinding = passCommand(contract.addPassFinding, (job) => {
  const { mark, text, severity, fixedNow } = job.input
  return addFindingOn(job, { siteIds: [job.order.siteId] }, { mark, text, severity, fixedNow })
})
export const addPassFindingPhoto = picturePassCommand(contract.addPassFindingPhoto, (job) => addFindingPhotoOn(job, job.input.mark, job.ready))
export const takeBackPassFinding = passCommand(contract.takeBackPassFinding, (job) => takeBackFindingOn(job, job.input.mark))

export const doPassStep = passCommand(contract.doPassStep, (job) => doStepOnSite(job, job.input))
export const undoPassStep = passCommand(contract.undoPassStep, (job) => undoStepOnSite(job, job.input))
export const addPassStepPhoto = picturePassCommand(contract.addPassStepPhoto, (job) => pictureStepOnSite(job, job.input.id, job.ready))

export const addPassReading = passCommand(contract.addPassReading, (job) => {
  refuseAdditions(job.order.state)
  return addReadingOn(job, job.input)
})
export const sayPassDowntime = passCommand(contract.sayPassDowntime, (job) => {
  refuseAdditions(job.order.state)
  return sayDowntimeOn(job, job.input)
})

export const sayByPass = passCommand(contract.sayByPass, (job) => {
  const { mark, text } = job.input
  return sayOn({ ...job, speaker: 'vendor' }, { mark, text, audience: 'vendor', visitId: job.visit.id })
})
export const addPassSaidPhoto = picturePassCommand(contract.addPassSaidPhoto, (job) =>
  pictureSaid({ ...job, speaker: 'vendor' }, { mark: job.input.mark, visitId: job.visit.id }, job.ready),
)

export const finishVendorJob = passCommand(contract.finishVendorJob, ({ tx, input, visit, order, at, actor }) =>
  finishVisit(tx, actor, order, visit, { ...input, releaseMembers: true }, at),
)
