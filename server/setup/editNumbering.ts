import * as contract from '#contract/setup'
import { command, continueFrom, mustReach } from '#server/kit'
import { readNumberingSheet } from './numberingSheet'

export default command(contract.editNumbering, async ({ tx, who, input, tell }) => {
  await mustReach(tx, who, input.siteId, 'numbering')
  const before = await continueFrom(tx, input.siteId, input.series, input.next)
  await tell({ kind: 'setup.numbering', siteId: input.siteId, details: { fields: { next: { from: before, to: input.next } } } })
  return readNumberingSheet(tx, who)
})
