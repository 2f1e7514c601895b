<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NCheckbox } from 'naive-ui/es/checkbox'
import { computed, ref, watch } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { buyListed, listToBuy } from '#contract/stock'
import type { ToBuyRow } from '#contract/stock'
import { counted, lineAmount } from '#core/kit'
import {
  call,
  freshKey,
  ListEntry,
  LoadedPart,
  NumberEntry,
  PickField,
  RecordLink,
  rowsNamed,
  useRead,
  useSession,
  useUndo,
  useVocabulary,
  writtenAs,
} from '#web/kit'
import { sayRefusal } from '#web/sheets'
import StockHead from './StockHead.vue'

/** Parts that are time to buy, with the sum behind each; those chosen become purchases, one a vendor. */
const session = useSession()
const words = useVocabulary()
const undo = useUndo()
const router = useRouter()
void words.ensure()
const siteId = ref(session.self!.site.id)
const read = useRead(listToBuy, () => ({ siteId: siteId.value }), { touchedBy: ({ kind }) => kind.startsWith('stock.'), holds: true })
const rows = computed(() => read.value.value?.rows ?? [])
/** What was changed here of a row; what nobody changed follows the list. */
const chosen = ref<Record<number, boolean>>({})
const quantities = ref<Record<number, number | null>>({})
const vendors = ref<Record<number, number | null>>({})
const store = ref<number | null>(null)
watch(siteId, () => ((chosen.value = {}), (quantities.value = {}), (vendors.value = {}), (store.value = null)))
const quantityOf = (row: ToBuyRow) => quantities.value[row.partId] ?? row.buy
const vendorOf = (row: ToBuyRow) => (row.partId in vendors.value ? vendors.value[row.partId]! : row.vendorId)
const isChosen = (row: ToBuyRow) => chosen.value[row.partId] ?? vendorOf(row) !== null
const taken = computed(() => rows.value.filter((row) => isChosen(row) && vendorOf(row) !== null && quantityOf(row) > 0))
const sellers = computed(() => new Set(taken.value.map(vendorOf)).size)
const storeId = computed(() => store.value ?? read.value.value?.storeId ?? null)
const total = computed(() => taken.value.reduce((sum, row) => sum + (row.priceMinor === null ? 0 : lineAmount(String(quantityOf(row)), row.priceMinor)), 0))
const mayBuy = computed(() => session.can('registers.edit'))
const open = ref<number | null>(null)
const busy = ref(false)
const key = ref(freshKey())
watch(taken, () => (key.value = freshKey()))

async function buy(): Promise<void> {
  if (storeId.value === null) return
  busy.value = true
  try {
    const lines = taken.value.map((row) => ({ partId: row.partId, quantity: String(quantityOf(row)), vendorId: vendorOf(row)! }))
    const made = await call(buyListed, { siteId: siteId.value, storeId: storeId.value, lines }, { key: key.value })
    undo.say(`Asked for: ${made.rows.map(({ number, vendor }) => `${number} at ${vendor}`).join(', ')}.`)
    await router.push('/stock/purchases')
  } catch (error) {
    sayRefusal(error)
  } finally {
    busy.value = false
  }
}
const number = (value: number) => writtenAs('quantity', String(Math.round(value * 100) / 100))
const money = (minor: number | null) => (minor === null ? '–' : writtenAs('money', minor))
</script>

<template>
  <div class="page">
    <StockHead />
    <section aria-label="What to buy">
      <div class="choices">
        <ListEntry v-if="(words.lists?.sites.length ?? 0) > 1" id="buy-site" v-model="siteId" label="Site" :options="rowsNamed(words.lists?.sites)" />
        <ListEntry
          v-if="(read.value.value?.stores.length ?? 0) > 1"
          id="buy-store"
          label="Deliver to"
          :model-value="storeId"
          :options="rowsNamed(read.value.value?.stores)"
          @update:model-value="store = $event"
        />
      </div>
      <LoadedPart :part="read">
        <p v-if="!rows.length" class="soft">
          None of {{ counted(read.value.value!.weighed, 'part') }} has fallen to its reorder point, and no order waits for more than is coming.
        </p>
        <div v-else class="scroll">
          <table class="plain-table" aria-label="Parts to buy">
            <thead>
              <tr>
                <th><span class="hidden">Chosen</span></th>
                <th>Part</th>
                <th class="amount">Left</th>
                <th class="amount">Reorder point</th>
                <th class="amount">Economic</th>
                <th class="quantity">Buy</th>
                <th>Vendor</th>
                <th class="amount">Last price</th>
                <th></th>
              </tr>
            </thead>
            <tbody>
              <template v-for="row in rows" :key="row.partId">
                <tr>
                  <td>
                    <NCheckbox
                      :checked="isChosen(row)"
                      :aria-label="`Buy ${row.name}`"
                      :disabled="!mayBuy"
                      @update:checked="(on: boolean) => (chosen[row.partId] = on)"
                    />
                  </td>
                  <td>
                    <RecordLink :record="{ register: 'parts', id: row.partId }">{{ row.name }}</RecordLink> <span class="mono soft">{{ row.code }}</span>
                  </td>
                  <td class="amount mono" :class="{ problem: row.position < 0 }">{{ number(row.position) }} {{ row.unit }}</td>
                  <td class="amount mono">{{ number(row.reorderPoint) }}</td>
                  <td class="amount mono">{{ row.economicQuantity === null ? '–' : number(row.economicQuantity) }}</td>
                  <td class="quantity">
                    <NumberEntry
                      :id="`buy-${row.partId}`"
                      label-hidden
                      :label="`How many of ${row.name}`"
                      :model-value="quantityOf(row)"
                      :least="1"
                      :disabled="!mayBuy"
                      @update:model-value="quantities[row.partId] = $event"
                    />
                  </td>
                  <td class="vendor">
                    <PickField
                      :id="`vendor-${row.partId}`"
                      label-hidden
                      :label="`Vendor of ${row.name}`"
                      :value="vendorOf(row)"
                      :choices="words.choices((all) => all.vendors)"
                      placeholder="Choose a vendor"
                      :disabled="!mayBuy"
                      @pick="vendors[row.partId] = $event === null ? null : Number($event)"
                    />
                  </td>
                  <td class="amount mono">{{ money(row.priceMinor) }}</td>
                  <td>
                    <NButton
                      size="tiny"
                      quaternary
                      :aria-expanded="open === row.partId"
                      :aria-label="`Why ${row.name}`"
                      @click="open = open === row.partId ? null : row.partId"
                      >Why</NButton
                    >
                  </td>
                </tr>
                <tr v-if="open === row.partId">
                  <td></td>
                  <td colspan="8">
                    <ul class="why">
                      <li v-for="sentence in row.because" :key="sentence">{{ sentence }}</li>
                    </ul>
                  </td>
                </tr>
              </template>
            </tbody>
          </table>
        </div>
        <div v-if="rows.length && mayBuy" class="acts">
          <NButton type="primary" :disabled="busy || !taken.length" @click="buy">{{
            taken.length ? `Ask for ${counted(taken.length, 'part')} at ${counted(sellers, 'vendor')}` : 'Choose parts and vendors'
          }}</NButton>
          <span v-if="taken.length" class="soft">{{ money(total) }} at the last prices. Nothing is ordered before you order it.</span>
        </div>
      </LoadedPart>
      <p class="soft">
        What makes a reorder point stands in <RouterLink v-if="session.can('setup.edit')" to="/setup/rules#rules-buying">Setup</RouterLink
        ><template v-else>Setup</template>; usual vendors and days to deliver stand with each part under
        <RouterLink to="/registers/parts">Registers</RouterLink>.
      </p>
    </section>
  </div>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
}
.choices > * {
  width: 240px;
}
.scroll {
  overflow-x: auto;
}
.plain-table td {
  vertical-align: middle;
}
.quantity {
  width: 84px;
}
.vendor {
  width: 220px;
}
.why {
  margin: 0;
  padding-left: 16px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
}
</style>
