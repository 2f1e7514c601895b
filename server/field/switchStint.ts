import * as contract from '#contract/field'
import { jobCommand } from './jobCommand'
import { switchStintOf } from './stint'

export default jobCommand(contract.switchStint, ({ tx, input, visit, order, at, actor }) => switchStintOf(tx, actor, order, visit, input.kind, at))
