import * as contract from '#contract/field'
import { jobCommand } from './jobCommand'
import { stopClockOf } from './stint'

export default jobCommand(contract.stopClock, ({ tx, input, visit, order, at, actor }) =>
  stopClockOf(tx, actor, order, visit, at, input.stoppedAt ? new Date(input.stoppedAt) : null),
)
