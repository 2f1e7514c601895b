import * as contract from '#contract/field'
import { jobCommand } from './jobCommand'
import { refuseUnsafeStart } from './safety'
import { switchStintOf } from './stint'

export default jobCommand(contract.switchStint, async ({ tx, input, visit, order, at, actor }) => {
  if (visit.state !== 'ended') await refuseUnsafeStart(tx, order.id, visit, input.kind, at)
  await switchStintOf(tx, actor, order, visit, input.kind, at)
})
