import * as contract from '#contract/orders'
import { command, mustReachAll } from '#server/kit'
import { setHoldsThatStop } from './promises'
import { readPromisesSheet } from './promisesSheet'
import { holdsThatStop } from './targetOf'

export default command(contract.editHold, async ({ tx, who, input, tell }) => {
  mustReachAll(who)
  const before = await holdsThatStop(tx)
  const after = before.filter((reason) => reason !== input.reason).concat(input.stopsClock ? [input.reason] : [])
  await setHoldsThatStop(tx, after)
  await tell({ kind: 'setup.hold', details: { fields: { stops: { from: before, to: after } } } })
  return readPromisesSheet(tx, who)
})
