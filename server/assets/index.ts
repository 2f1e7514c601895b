import * as contract from '#contract/assets'
import type { Route } from '#server/kit'
import { recordRoutes } from '#server/registers'
import { assetKeeper } from './keeper'
import noteAsset from './noteAsset'

export { assetKeeper }
export const routes: Route[] = [
  noteAsset,
  ...recordRoutes(assetKeeper, {
    read: contract.readAsset,
    add: contract.addAsset,
    edit: contract.editAsset,
    retire: contract.retireAsset,
    restore: contract.restoreAsset,
  }),
]
