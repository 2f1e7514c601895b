import * as contract from '#contract/setup'
import { query } from '#server/kit'
import { openApi } from './openApi'

export default query(contract.readOpenApi, () => Promise.resolve(openApi()))
