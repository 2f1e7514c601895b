import * as contract from '#contract/field'
import { command } from '#server/kit'
import { finishVisit } from './finishVisit'
import { readJobSheet } from './jobSheet'
import { lockMyVisit } from './myVisit'

export default command(contract.finishJob, async ({ tx, who, input, now }) => {
  const { visit, order } = await lockMyVisit(tx, who, input.visitId)
  await finishVisit(tx, who, order, visit, input, now)
  return readJobSheet(tx, who, visit.id)
})
