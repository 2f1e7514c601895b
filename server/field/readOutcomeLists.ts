import * as contract from '#contract/field'
import { outcomeListsFor } from '#core/field'
import { query } from '#server/kit'

export default query(contract.readOutcomeLists, ({ input }) => Promise.resolve(outcomeListsFor(input.classCode ?? null)))
