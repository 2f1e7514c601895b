<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import { moveStock } from '#contract/stock'
import type { StockLevel } from '#contract/stock'
import { STOCK_ACT_NAMES, STOCK_ACTS } from '#core/stock'
import type { StockAct } from '#core/stock'
import { call, ChoiceEntry, DecimalField, freshKey, named, PickField, TextEntry, useFirstField } from '#web/kit'
import { useLineAct } from '#web/sheets'
import { partChoices, storeChoices } from './finders'

/** One movement of stock: what comes in, goes to an order, comes back, goes to another store, or was counted. */
const props = defineProps<{ partId?: number; storeId?: number; act?: StockAct; orderNumber?: string; storeName?: string }>()
const emit = defineEmits<{ leave: []; moved: [] }>()
const doing = ref<StockAct>(props.act ?? 'receipt')
const part = ref(props.partId ?? null)
const store = ref(props.storeId ?? null)
const toStore = ref<number | null>(null)
const quantity = ref<string | null>(null)
const cost = ref<number | null>(null)
const order = ref(props.orderNumber ?? '')
const reason = ref('')
const key = ref(freshKey())
const { act: send, at, busy } = useLineAct<{ level: StockLevel }>(() => emit('moved'))
type Field = InstanceType<typeof DecimalField> | null
const quantityField = ref<Field>(null)
const costField = ref<Field>(null)
const ready = computed(() => part.value !== null && store.value !== null && quantity.value !== null)
watch([doing, part, store, quantity], () => (key.value = freshKey()))

async function move(): Promise<void> {
  // What was typed last is read before it is sent.
  const read = [quantityField.value, costField.value].map((field) => field?.leave() ?? true)
  if (read.includes(false) || !ready.value) return
  const sent = {
    act: doing.value,
    partId: part.value!,
    storeId: store.value!,
    quantity: quantity.value!,
    ...(doing.value === 'receipt' && cost.value !== null ? { unitCostMinor: cost.value } : {}),
    ...((doing.value === 'issue' || doing.value === 'return') && order.value.trim() ? { orderNumber: order.value.trim() } : {}),
    ...(doing.value === 'transfer' && toStore.value !== null ? { toStoreId: toStore.value } : {}),
    ...(reason.value.trim() ? { reason: reason.value.trim() } : {}),
  }
  await send(() => call(moveStock, sent, { key: key.value }), `${STOCK_ACT_NAMES[doing.value]}: done.`)
}
const form = ref<HTMLElement | null>(null)
useFirstField(form)
</script>

<template>
  <form ref="form" class="form" aria-label="Move stock" @submit.prevent="move" @keydown.ctrl.enter.prevent="move" @keydown.esc.stop="emit('leave')">
    <ChoiceEntry v-if="!props.act" id="stock-act" v-model="doing" label="What happens" :options="named(STOCK_ACTS, STOCK_ACT_NAMES)" />
    <div class="row">
      <PickField
        v-if="!props.partId"
        id="stock-part"
        label="Part"
        :value="part"
        :find="partChoices"
        :problem="at('partId')"
        @pick="part = $event === null ? null : Number($event)"
      />
      <PickField
        id="stock-store"
        :label="doing === 'transfer' ? 'From the store' : 'Store'"
        :value="store"
        :current="store !== null && storeName ? { value: store, label: storeName } : null"
        :find="storeChoices"
        :problem="at('storeId')"
        @pick="store = $event === null ? null : Number($event)"
      />
      <PickField
        v-if="doing === 'transfer'"
        id="stock-to"
        label="To the store"
        :value="toStore"
        :find="storeChoices"
        :problem="at('toStoreId')"
        @pick="toStore = $event === null ? null : Number($event)"
      />
      <DecimalField
        id="stock-quantity"
        ref="quantityField"
        :label="doing === 'count' ? 'How many are there' : 'How many'"
        kind="quantity"
        required
        :value="quantity"
        :problem="at('quantity')"
        @save="quantity = $event === null ? null : String($event)"
      />
      <DecimalField
        v-if="doing === 'receipt'"
        id="stock-cost"
        ref="costField"
        label="Price of one"
        kind="money"
        :value="cost"
        :problem="at('unitCostMinor')"
        @save="cost = $event === null ? null : Number($event)"
      />
      <TextEntry
        v-if="(doing === 'issue' || doing === 'return') && !props.orderNumber"
        id="stock-order"
        v-model="order"
        label="Order"
        mono
        :problem="at('orderNumber')"
      />
      <TextEntry id="stock-reason" v-model="reason" :label="doing === 'count' ? 'Why it differs, or who counted' : 'Note'" :max="200" :problem="at('reason')" />
    </div>
    <div class="row">
      <NButton type="primary" attr-type="submit" :disabled="busy">{{ STOCK_ACT_NAMES[doing] }}</NButton>
      <NButton @click="emit('leave')">Leave it</NButton>
    </div>
  </form>
</template>

<style scoped src="./form.css"></style>
