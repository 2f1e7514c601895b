import * as contract from '#contract/stock'
import type { Route } from '#server/kit'
import { recordRoutes } from '#server/registers'
import { equipmentKeeper, partKeeper, storeKeeper } from './keepers'
import moveStock from './moveStock'
import { readOrderParts, reservePart } from './orderParts'

export * from './keepers'
export * from './issuePart'
export { levelsWhere } from './levels'
export const routes: Route[] = [
  moveStock,
  readOrderParts,
  reservePart,
  ...recordRoutes(partKeeper, {
    read: contract.readPart,
    add: contract.addPart,
    edit: contract.editPart,
    retire: contract.retirePart,
    restore: contract.restorePart,
  }),
  ...recordRoutes(storeKeeper, {
    read: contract.readStore,
    add: contract.addStore,
    edit: contract.editStore,
    retire: contract.retireStore,
    restore: contract.restoreStore,
  }),
  ...recordRoutes(equipmentKeeper, {
    read: contract.readEquipment,
    add: contract.addEquipment,
    edit: contract.editEquipment,
    retire: contract.retireEquipment,
    restore: contract.restoreEquipment,
  }),
]
