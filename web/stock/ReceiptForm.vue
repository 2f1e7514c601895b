<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { receivePurchase } from '#contract/stock'
import type { Purchase } from '#contract/stock'
import { toCome } from '#core/stock'
import { call, DecimalField, freshKey, TextEntry, useFirstField } from '#web/kit'
import { useLineAct } from '#web/sheets'

/** What came of a purchase, line by line: all that is to come at the price agreed, unless something else is said. */
const props = defineProps<{ purchase: Purchase }>()
const emit = defineEmits<{ leave: []; done: [] }>()
const lines = ref(
  props.purchase.lines
    .filter((line) => toCome(line) !== '0')
    .map((line) => ({
      id: line.id,
      called: `${line.name}, ${line.unit}`,
      quantity: toCome(line) as string | null,
      price: line.priceMinor ?? line.lastPriceMinor,
    })),
)
const note = ref('')
const key = freshKey()
type Field = InstanceType<typeof DecimalField> | null
const fields = ref<Field[]>([])
const { act, at, busy } = useLineAct<Purchase>(() => emit('done'))
const form = ref<HTMLElement | null>(null)
useFirstField(form)
const wrong = ref('')

async function send(): Promise<void> {
  // What was typed last is read before it is sent.
  if (fields.value.map((field) => field?.leave() ?? true).includes(false)) return
  const came = lines.value.filter(({ quantity }) => quantity !== null && Number(quantity) > 0)
  wrong.value = !came.length ? 'Nothing came: leave it, or say how many.' : came.some(({ price }) => price === null) ? 'Say what one of each cost.' : ''
  if (wrong.value) return
  const { id, version } = props.purchase
  const sent = { id, version, lines: came.map((line) => ({ lineId: line.id, quantity: line.quantity!, priceMinor: line.price! })), note: note.value.trim() }
  await act(() => call(receivePurchase, sent, { key }), 'Received. What orders waited for is reserved for them.')
}
</script>

<template>
  <form ref="form" class="form" aria-label="Receive" @submit.prevent="send" @keydown.ctrl.enter.prevent="send" @keydown.esc.stop="emit('leave')">
    <div v-for="(line, index) in lines" :key="line.id" class="row">
      <DecimalField
        :id="`receipt-quantity-${line.id}`"
        :ref="(one) => (fields[index * 2] = one as Field)"
        :label="`How many came of ${line.called}`"
        kind="quantity"
        :value="line.quantity"
        @save="line.quantity = $event === null ? null : String($event)"
      />
      <DecimalField
        :id="`receipt-price-${line.id}`"
        :ref="(one) => (fields[index * 2 + 1] = one as Field)"
        label="Price of one"
        kind="money"
        :value="line.price"
        @save="line.price = $event === null ? null : Number($event)"
      />
    </div>
    <TextEntry id="receipt-note" v-model="note" label="Note" :max="200" />
    <p v-if="wrong || at('lines')" class="problem" role="alert">{{ wrong || at('lines') }}</p>
    <div class="row">
      <NButton type="primary" attr-type="submit" :disabled="busy">Take it in</NButton>
      <NButton @click="emit('leave')">Leave it</NButton>
    </div>
  </form>
</template>

<style scoped src="./form.css"></style>
