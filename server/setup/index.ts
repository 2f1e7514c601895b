import type { Route } from '#server/kit'
import listUntold from './listUntold'
import tellAgain from './tellAgain'
import editNumbering from './editNumbering'
import readHealth from './readHealth'
import readOpenApi from './readOpenApi'
import readNumbering from './readNumbering'
import copySiteIntake from './copySiteIntake'
import dropWording from './dropWording'
import editSiteIntake from './editSiteIntake'
import makeApiKey from './makeApiKey'
import previewWording from './previewWording'
import readIntakeSetup from './readIntakeSetup'
import revokeApiKey from './revokeApiKey'
import saveCategory from './saveCategory'
import saveWording from './saveWording'
import dropPromiseException from './dropPromiseException'
import readRuleBook from './readRuleBook'
import saveCalendar from './saveCalendar'
import saveConsent from './saveConsent'
import savePromiseException from './savePromiseException'
import saveRules from './saveRules'
import takeTable from './takeTable'
import tryReasonRules from './tryReasonRules'

export const routes: Route[] = [
  readNumbering,
  listUntold,
  tellAgain,
  editNumbering,
  readHealth,
  readOpenApi,
  copySiteIntake,
  dropWording,
  editSiteIntake,
  makeApiKey,
  previewWording,
  readIntakeSetup,
  revokeApiKey,
  saveCategory,
  saveWording,
  takeTable,
  readRuleBook,
  saveRules,
  tryReasonRules,
  savePromiseException,
  dropPromiseException,
  saveCalendar,
  saveConsent,
]
