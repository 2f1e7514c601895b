import * as contract from '#contract/vendors'
import { command } from '#server/kit'
import { stopClockOf } from '#server/field'
import { lockPass } from './openPass'
import { readPassSheet } from './passSheet'

export default command(contract.stopVendorClock, async ({ tx, input, now }) => {
  const { visit, order, worker } = await lockPass(tx, input.token, now)
  await stopClockOf(tx, worker, order, visit, now, input.stoppedAt ? new Date(input.stoppedAt) : null)
  return readPassSheet(tx, input.token, now)
})
