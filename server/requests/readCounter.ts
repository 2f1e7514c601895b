import * as contract from '#contract/requests'
import { query } from '#server/kit'
import { counterSite, siteByCode } from './siteByCode'

export default query(contract.readCounter, async ({ db, input }) => counterSite(await siteByCode(db, input.site)))
