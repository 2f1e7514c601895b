import * as contract from '#contract/requests'
import { query } from '#server/kit'
import { requestByLink, trackedOf } from './tracked'

export default query(contract.trackRequest, async ({ db, input, now }) => trackedOf(db, await requestByLink(db, input.token, now), now))
