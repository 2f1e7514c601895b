import * as contract from '#contract/vendors'
import { command } from '#server/kit'
import { switchStintOf } from '#server/field'
import { lockPass } from './openPass'
import { readPassSheet } from './passSheet'

export default command(contract.switchVendorStint, async ({ tx, input, now }) => {
  const { visit, order, worker } = await lockPass(tx, input.token, now)
  await switchStintOf(tx, worker, order, visit, input.kind, now)
  return readPassSheet(tx, input.token, now)
})
