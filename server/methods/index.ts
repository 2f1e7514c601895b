import * as contract from '#contract/methods'
import type { Route } from '#server/kit'
import { recordRoutes } from '#server/registers'
import { applyMethods, keepAsMethod, readOrderPlan, savePlan, takeOffMethod } from './changePlan'
import { addStep, dropStep, editStep } from './changeStep'
import { readMethodContent, writeMethod } from './content'
import { addSentStepPhoto, addStepPhoto, doStep, listJobSteps, listMySteps, undoStep } from './doStep'
import { methodKeeper } from './keeper'
import offerMethods from './offerMethods'
import readPlanEstimate, { weighPlan } from './planEstimate'

export * from './keeper'
export * from './mails'
export { contentsOf, giveMethods } from './changePlan'
export type { MethodInUse } from './changePlan'
export { NOTHING } from './orderPlan'
export { weighPlan }
export { doStepOnSite, pictureStepOnSite, stepsOnSite, undoStepOnSite } from './doStep'
export const routes: Route[] = [
  ...recordRoutes(methodKeeper, {
    read: contract.readMethod,
    add: contract.addMethod,
    edit: contract.editMethod,
    retire: contract.retireMethod,
    restore: contract.restoreMethod,
  }),
  readMethodContent,
  writeMethod,
  readOrderPlan,
  readPlanEstimate,
  offerMethods,
  applyMethods,
  takeOffMethod,
  savePlan,
  keepAsMethod,
  addStep,
  editStep,
  dropStep,
  listMySteps,
  doStep,
  undoStep,
  addStepPhoto,
  addSentStepPhoto,
  listJobSteps,
]
