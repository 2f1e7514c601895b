import * as contract from '#contract/assets'
import type { Route } from '#server/kit'
import { recordRoutes } from '#server/registers'
import askTransfer from './askTransfer'
import { agreeTransfer, giveBackAsset, refuseTransfer, withdrawTransfer } from './decideTransfer'
import { assetKeeper } from './keeper'
import listTransfers from './listTransfers'
import noteAsset from './noteAsset'

export { assetKeeper }
export * from './insertAssets'
export { assetMails } from './mails'
export const routes: Route[] = [
  noteAsset,
  listTransfers,
  askTransfer,
  agreeTransfer,
  refuseTransfer,
  withdrawTransfer,
  giveBackAsset,
  ...recordRoutes(assetKeeper, {
    read: contract.readAsset,
    add: contract.addAsset,
    edit: contract.editAsset,
    retire: contract.retireAsset,
    restore: contract.restoreAsset,
  }),
]
