import * as contract from '#contract/setup'
import { changeNumbering, changesOf, command, mustReach } from '#server/kit'
import { readNumberingSheet } from './numberingSheet'

export default command(contract.editNumbering, async ({ tx, who, input, tell }) => {
  const { siteId, series, ...change } = input
  await mustReach(tx, who, siteId, 'numbering')
  const before = await changeNumbering(tx, siteId, series, change)
  const fields = Object.fromEntries(changesOf(before, change).differences.map(({ field, theirs, yours }) => [field, { from: theirs, to: yours }]))
  if (Object.keys(fields).length) await tell({ kind: 'setup.numbering', siteId, details: { fields } })
  return readNumberingSheet(tx, who)
})
