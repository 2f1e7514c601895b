import { shallowRef } from 'vue'
import { readAssetSays } from '#contract/places'
import type { AssetSays } from '#contract/places'
import { assetFills } from '#core/orders'
import type { AssetSaying, AssetSayings } from '#core/orders'
import { call } from '#web/kit'
import type { Difference } from './AssetFills.vue'

const LABELS: Record<AssetSaying, string> = { placeId: 'Place', payerId: 'Payer', vendorId: 'Vendor', contact: 'Contact' }

/** What a Sheet says of a field: its value to compare, and the words it is shown by. */
export type Said = Partial<Record<AssetSaying, { value: number | string | null; words: string }>>

/**
 * Choosing an asset: what it says fills what is empty; where something else stands already, the person is
 * asked. `keep` saves the asset together with the fields that are taken from it, in one change.
 */
export function useAssetChoice(said: () => Said, keep: (assetId: number | null, taken: AssetSaying[], says: AssetSays | null) => unknown) {
  const asking = shallowRef<{ says: AssetSays; fills: AssetSaying[]; differences: Difference[] } | null>(null)

  async function pick(assetId: number | null): Promise<void> {
    if (assetId === null) return void keep(null, [], null)
    const says = await call(readAssetSays, { id: assetId })
    const now = said()
    const asked = Object.keys(now) as AssetSaying[]
    const values = Object.fromEntries(asked.map((field) => [field, now[field]!.value])) as Partial<AssetSayings>
    const { fills, differs } = assetFills(values, sayingsOf(says), asked)
    if (!differs.length) return void keep(assetId, fills, says)
    asking.value = {
      says,
      fills,
      differences: differs.map((field) => ({ field, label: LABELS[field], now: now[field]!.words, says: wordsOf(says, field) })),
    }
  }
  function choose(taken: AssetSaying[]): void {
    const { says, fills } = asking.value!
    asking.value = null
    keep(says.id, [...fills, ...taken], says)
  }
  return { asking, pick, choose, leave: () => (asking.value = null) }
}

const sayingsOf = (says: AssetSays): AssetSayings => ({
  placeId: says.place.id,
  payerId: says.payer?.id ?? null,
  vendorId: says.vendor?.id ?? null,
  contact: says.contact?.name ?? null,
})

function wordsOf(says: AssetSays, field: AssetSaying): string {
  if (field === 'placeId') return says.place.label
  if (field === 'payerId') return says.payer!.label
  if (field === 'vendorId') return says.vendor!.label
  return [says.contact!.name, says.contact!.phone].filter(Boolean).join(', ')
}
