import * as contract from '#contract/stock'
import type { Route } from '#server/kit'
import { recordRoutes } from '#server/registers'
import { equipmentKeeper, partKeeper, storeKeeper } from './keepers'
import moveStock from './moveStock'
import { askForOrder, askPurchase, billPurchase, cancelPurchase, editPurchase, orderPurchase, receivePurchase } from './changePurchase'
import { enterCount, printCountSheet, readCountSheet } from './counts'
import { readOrderParts, reservePart } from './orderParts'
import { listPurchases, readPurchase, readPurchasePdf } from './purchaseSheet'
import { buyListed, listToBuy } from './toBuy'

export * from './keepers'
export * from './issuePart'
export * from './mails'
export { goOn, lockWaiting } from './arrivals'
export { askToBuy } from './changePurchase'
export { levelsWhere } from './levels'
export { whereLies } from './whereLies'
export const routes: Route[] = [
  moveStock,
  readOrderParts,
  reservePart,
  listPurchases,
  readPurchase,
  readPurchasePdf,
  askPurchase,
  askForOrder,
  editPurchase,
  orderPurchase,
  receivePurchase,
  cancelPurchase,
  billPurchase,
  listToBuy,
  buyListed,
  readCountSheet,
  printCountSheet,
  enterCount,
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
