import * as contract from '#contract/lists'
import { query } from '#server/kit'
import { viewsOf } from './views'

export default query(contract.listViews, ({ db, who }) => viewsOf(db, who))
