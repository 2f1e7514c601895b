import * as contract from '#contract/field'
import { command } from '#server/kit'
import { readJobSheet } from './jobSheet'
import { lockMyVisit } from './myVisit'
import { stopClockOf } from './stint'

export default command(contract.stopClock, async ({ tx, who, input, now }) => {
  const { visit, order } = await lockMyVisit(tx, who, input.visitId)
  await stopClockOf(tx, who, order, visit, now, input.stoppedAt ? new Date(input.stoppedAt) : null)
  return readJobSheet(tx, who, visit.id)
})
