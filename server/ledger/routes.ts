import * as contract from '#contract/ledger'
import type { Route } from '#server/kit'
import { recordRoutes } from '#server/registers'
import downloadStatementCsv from './downloadStatementCsv'
import downloadStatementPdf from './downloadStatementPdf'
import listPayables from './listPayables'
import listStatements from './listStatements'
import { payerKeeper } from './payerKeeper'
import postOrder from './postOrder'
import previewCharges from './previewCharges'
import readStatement from './readStatement'
import reverseOrder from './reverseOrder'

export const routes: Route[] = [
  postOrder,
  previewCharges,
  reverseOrder,
  listStatements,
  readStatement,
  downloadStatementPdf,
  downloadStatementCsv,
  listPayables,
  ...recordRoutes(payerKeeper, {
    read: contract.readPayer,
    add: contract.addPayer,
    edit: contract.editPayer,
    retire: contract.retirePayer,
    restore: contract.restorePayer,
  }),
]
