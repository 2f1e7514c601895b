import * as contract from '#contract/field'
import { CAUSES, FIXES, SYMPTOMS } from '#core/field'
import { query } from '#server/kit'

export default query(contract.readOutcomeLists, () => Promise.resolve({ symptoms: [...SYMPTOMS], causes: [...CAUSES], fixes: [...FIXES] }))
