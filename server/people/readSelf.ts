import * as contract from '#contract/people'
import { query } from '#server/kit'
import { selfOf } from './self'

export default query(contract.readSelf, ({ db, who, now }) => selfOf(db, who, now))
