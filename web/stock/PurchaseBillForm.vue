<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { billPurchase } from '#contract/stock'
import type { Purchase } from '#contract/stock'
import { lineAmount } from '#core/kit'
import { call, DecimalField, MomentEntry, serverNow, TextEntry, toLocalField, useFirstField } from '#web/kit'
import { useLineAct } from '#web/sheets'

/** The vendor's bill for what was received: what it should come to stands there already. */
const props = defineProps<{ purchase: Purchase }>()
const emit = defineEmits<{ leave: []; done: [] }>()
const number = ref('')
const on = ref(toLocalField(serverNow()).slice(0, 10))
const amount = ref<number | null>(props.purchase.receipts.reduce((sum, { quantity, priceMinor }) => sum + lineAmount(quantity, priceMinor), 0))
const field = ref<InstanceType<typeof DecimalField> | null>(null)
const { act, at, busy } = useLineAct<Purchase>(() => emit('done'))
const form = ref<HTMLElement | null>(null)
useFirstField(form)
async function send(): Promise<void> {
  if (field.value?.leave() === false || amount.value === null) return
  const { id, version } = props.purchase
  await act(() => call(billPurchase, { id, version, number: number.value.trim(), on: on.value, amountMinor: amount.value! }), 'The bill is entered.')
}
</script>

<template>
  <form ref="form" class="form" aria-label="Bill" @submit.prevent="send" @keydown.ctrl.enter.prevent="send" @keydown.esc.stop="emit('leave')">
    <div class="row">
      <TextEntry id="bill-number" v-model="number" label="Number of the bill" mono :max="40" :problem="at('number')" />
      <MomentEntry id="bill-on" v-model="on" day label="Dated" :problem="at('on')" />
      <DecimalField
        id="bill-amount"
        ref="field"
        label="Comes to, without tax"
        kind="money"
        required
        :value="amount"
        :problem="at('amountMinor')"
        @save="amount = $event === null ? null : Number($event)"
      />
    </div>
    <div class="row">
      <NButton type="primary" attr-type="submit" :disabled="busy || !number.trim() || !on">Enter it</NButton>
      <NButton @click="emit('leave')">Leave it</NButton>
    </div>
  </form>
</template>

<style scoped src="./form.css"></style>
