import * as contract from '#contract/orders'
import { query } from '#server/kit'
import { readPromisesSheet } from './promisesSheet'

export default query(contract.readPromises, ({ db, who }) => readPromisesSheet(db, who))
