import type { RegisterName } from '#core/registers'
import { assetKeeper } from '#server/assets'
import { payerKeeper } from '#server/ledger'
import { methodKeeper } from '#server/methods'
import { personKeeper, teamKeeper } from '#server/people'
import { placeKeeper } from '#server/places'
import { anyKeeper } from '#server/registers'
import type { AnyKeeper } from '#server/registers'
import { equipmentKeeper, partKeeper, storeKeeper } from '#server/stock'
import { vendorKeeper } from '#server/vendors'

/** Every register with the one who keeps it. */
export const KEEPERS: Record<RegisterName, AnyKeeper> = {
  places: anyKeeper(placeKeeper),
  assets: anyKeeper(assetKeeper),
  people: anyKeeper(personKeeper),
  teams: anyKeeper(teamKeeper),
  vendors: anyKeeper(vendorKeeper),
  payers: anyKeeper(payerKeeper),
  parts: anyKeeper(partKeeper),
  stores: anyKeeper(storeKeeper),
  equipment: anyKeeper(equipmentKeeper),
  methods: anyKeeper(methodKeeper),
}
