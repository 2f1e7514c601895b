import * as contract from '#contract/setup'
import { command } from '#server/kit'
import { holdsThatStop } from '#server/orders'
import { settings } from '../tables'
import { readSetupSheet } from './setupSheet'
import { mustReachAll } from './reach'

export default command(contract.editHold, async ({ tx, who, input, tell }) => {
  mustReachAll(who)
  const before = await holdsThatStop(tx)
  const after = before.filter((reason) => reason !== input.reason).concat(input.stopsClock ? [input.reason] : [])
  await tx
    .insert(settings)
    .values({ name: 'holds_that_stop', value: after })
    .onDuplicateKeyUpdate({ set: { value: after } })
  await tell({ kind: 'setup.hold', details: { fields: { stops: { from: before, to: after } } } })
  return readSetupSheet(tx, who)
})
