<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { listPurchases } from '#contract/stock'
import type { PurchaseRow } from '#contract/stock'
import { counted } from '#core/kit'
import { PURCHASE_STATE_NAMES } from '#core/stock'
import type { PurchaseState } from '#core/stock'
import { call, ChoiceEntry, onLiveChange, ProblemNote, shortTime, TextEntry, useLoading, useSession, useSoon, writtenAs, writtenDay } from '#web/kit'
import PurchaseForm from './PurchaseForm.vue'
import StockHead from './StockHead.vue'

/** Purchases of parts: what is asked for, ordered, and to be billed. */
const session = useSession()
const router = useRouter()
type Shown = 'asked' | 'ordered' | 'bill' | 'all'
const SHOWN: { value: Shown; label: string }[] = [
  { value: 'asked', label: PURCHASE_STATE_NAMES.asked },
  { value: 'ordered', label: PURCHASE_STATE_NAMES.ordered },
  { value: 'bill', label: 'To be billed' },
  { value: 'all', label: 'All' },
]
const shown = ref<Shown>('all')
const words = ref('')
const asking = ref(false)
const more = ref<PurchaseRow[]>([])
const ask = computed(() => ({
  ...(shown.value === 'bill' ? { state: 'received' as PurchaseState, billed: false } : shown.value === 'all' ? {} : { state: shown.value as PurchaseState }),
  ...(words.value.trim() ? { q: words.value.trim() } : {}),
}))
const page = useLoading(async () => {
  more.value = []
  return call(listPurchases, ask.value)
})
const soon = useSoon(page.load, 200)
watch(ask, soon, { immediate: true })
onLiveChange((change) => change?.kind.startsWith('stock.') !== false && soon())
const next = ref<string | null>(null)
watch(
  () => page.value.value,
  (now) => (next.value = now?.next ?? null),
)
async function further(): Promise<void> {
  const read = await call(listPurchases, { ...ask.value, after: next.value! })
  more.value.push(...read.rows)
  next.value = read.next
}
const rows = computed(() => [...(page.value.value?.rows ?? []), ...more.value])
const says = (row: PurchaseRow) => (row.billed ? 'Billed' : PURCHASE_STATE_NAMES[row.state])
const EMPTY: Record<Shown, string> = {
  asked: 'Nothing is asked for. “What to buy” makes purchases of what has run low; a missing part of an order is asked for on its Sheet.',
  ordered: 'Nothing is on its way.',
  bill: 'Everything that was received is billed.',
  all: 'Nothing was bought yet.',
}
</script>

<template>
  <div class="page">
    <StockHead />
    <section aria-label="Purchases">
      <div class="choices">
        <ChoiceEntry id="purchases-shown" v-model="shown" label-hidden label="Which" :options="SHOWN" />
        <TextEntry id="purchases-words" v-model="words" label="Find" label-hidden placeholder="Number, vendor or part" />
        <NButton v-if="session.can('orders.edit')" type="primary" @click="asking = !asking">Ask for parts</NButton>
      </div>
      <PurchaseForm v-if="asking" @leave="asking = false" @made="(id) => router.push(`/stock/purchases/${id}`)" />
      <ProblemNote v-if="page.problem.value && !page.value.value" :problem="page.problem.value" @retry="page.load" />
      <template v-else-if="page.value.value">
        <div v-if="rows.length" class="scroll">
          <table class="plain-table" aria-label="Purchases">
            <thead>
              <tr>
                <th>Number</th>
                <th>Stands</th>
                <th>Vendor</th>
                <th>Delivered to</th>
                <th class="amount">Parts</th>
                <th class="apart">Asked for</th>
                <th>Expected</th>
                <th class="amount">Comes to</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="row in rows" :key="row.id">
                <td>
                  <RouterLink class="mono" :to="`/stock/purchases/${row.id}`">{{ row.number }}</RouterLink>
                </td>
                <td>{{ says(row) }}</td>
                <td>
                  <template v-if="row.vendor">{{ row.vendor }}</template><span v-else class="soft">not chosen yet</span>
                </td>
                <td>{{ row.store }}</td>
                <td class="amount mono">{{ row.lines }}</td>
                <td class="mono apart">{{ shortTime(row.askedAt) }}</td>
                <td class="mono">{{ row.expectedOn ? writtenDay(row.expectedOn) : '–' }}</td>
                <td class="amount violet mono">{{ writtenAs('money', row.totalMinor) }}</td>
              </tr>
            </tbody>
          </table>
        </div>
        <p v-else class="soft">{{ words.trim() ? `No purchase is like “${words.trim()}”.` : EMPTY[shown] }}</p>
        <p v-if="next">
          <NButton @click="further">Show more</NButton> <span class="soft">{{ counted(rows.length, 'purchase') }} shown</span>
        </p>
      </template>
      <div v-else class="bones wait" />
    </section>
  </div>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
}
.apart {
  padding-left: 24px;
}
.scroll {
  overflow-x: auto;
}
</style>
