import * as contract from '#contract/vendors'
import { command } from '#server/kit'
import { finishVisit } from '#server/field'
import { lockPass } from './openPass'
import { readPassSheet } from './passSheet'

export default command(contract.finishVendorJob, async ({ tx, input, now }) => {
  const { visit, order, worker } = await lockPass(tx, input.token, now)
  await finishVisit(tx, worker, order, visit, { ...input, releaseMembers: true }, now)
  return readPassSheet(tx, input.token, now)
})
