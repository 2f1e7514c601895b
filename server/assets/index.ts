import * as contract from '#contract/assets'
import type { Route } from '#server/kit'
import { recordRoutes } from '#server/registers'
import { assetKeeper } from './keeper'

export { assetKeeper }
export const routes: Route[] = recordRoutes(assetKeeper, {
  read: contract.readAsset,
  add: contract.addAsset,
  edit: contract.editAsset,
  retire: contract.retireAsset,
  restore: contract.restoreAsset,
})
