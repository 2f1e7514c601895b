import * as contract from '#contract/field'
import { finishVisit } from './finishVisit'
import { jobCommand } from './jobCommand'

export default jobCommand(contract.finishJob, ({ tx, input, visit, order, at, actor }) => finishVisit(tx, actor, order, visit, input, at))
