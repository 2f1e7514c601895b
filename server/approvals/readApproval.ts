import * as contract from '#contract/approvals'
import { query } from '#server/kit'
import { openLink, pageOf } from './openLink'

export default query(contract.readApproval, async ({ db, input, now }) => pageOf(db, await openLink(db, input.token, now), now))
