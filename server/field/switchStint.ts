import * as contract from '#contract/field'
import { command } from '#server/kit'
import { readJobSheet } from './jobSheet'
import { lockMyVisit } from './myVisit'
import { switchStintOf } from './stint'

export default command(contract.switchStint, async ({ tx, who, input, now }) => {
  const { visit, order } = await lockMyVisit(tx, who, input.visitId)
  await switchStintOf(tx, who, order, visit, input.kind, now)
  return readJobSheet(tx, who, visit.id)
})
