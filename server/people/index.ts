import * as contract from '#contract/people'
import type { Route } from '#server/kit'
import { recordRoutes } from '#server/registers'
import { crewRoutes } from './crewRoutes'
import editAccount from './editAccount'
import endAway from './endAway'
import findPeople from './findPeople'
import keepCallPreset from './keepCallPreset'
import { personKeeper, teamKeeper } from './keepers'
import listAway from './listAway'
import listNotices from './listNotices'
import readAccounts from './readAccounts'
import readDemoPeople from './readDemoPeople'
import readNotices from './readNotices'
import readSelf from './readSelf'
import readVocabulary from './readVocabulary'
import saveAway from './saveAway'
import signIn from './signIn'
import signOut from './signOut'

export * from './keepers'
export { administers } from './administers'
export * from './away'
export { atWork, lockTechnician, tellCrew } from './crew'
export * from './keepAccount'
export * from './takePeople'
export * from './sweepSignIns'
export const routes: Route[] = [
  signIn,
  signOut,
  readSelf,
  listNotices,
  readNotices,
  findPeople,
  readVocabulary,
  keepCallPreset,
  listAway,
  saveAway,
  endAway,
  readAccounts,
  editAccount,
  readDemoPeople,
  ...crewRoutes,
  ...recordRoutes(personKeeper, {
    read: contract.readPerson,
    add: contract.addPerson,
    edit: contract.editPerson,
    retire: contract.retirePerson,
    restore: contract.restorePerson,
  }),
  ...recordRoutes(teamKeeper, {
    read: contract.readTeam,
    add: contract.addTeam,
    edit: contract.editTeam,
    retire: contract.retireTeam,
    restore: contract.restoreTeam,
  }),
]
