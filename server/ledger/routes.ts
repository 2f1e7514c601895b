import type { Route } from '#server/kit'
import downloadStatementCsv from './downloadStatementCsv'
import downloadStatementPdf from './downloadStatementPdf'
import listPayables from './listPayables'
import listStatements from './listStatements'
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
]
