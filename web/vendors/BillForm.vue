<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { TextEntry, DecimalField } from '#web/kit'
import type { CallProblem } from '#web/kit'

/** The vendor's bill, line by line, as it will be paid. */
defineProps<{ currency: string; busy: boolean; problem: CallProblem | null }>()
const emit = defineEmits<{ send: [{ number: string; taxBp: number; lines: { description: string; quantity: string; unitPriceMinor: number }[] }]; leave: [] }>()
const number = ref('')
const tax = ref<number | null>(1_350)
interface Line {
  description: string
  quantity: string | null
  price: number | null
}
const lines = ref<Line[]>([{ description: '', quantity: '1', price: null }])
/** The fields that hold numbers, by what they are of. */
const fields: Record<string, InstanceType<typeof DecimalField> | null> = {}
const field = (name: string) => (one: unknown) => (fields[name] = one as InstanceType<typeof DecimalField> | null)

/** Every number is read before anything is sent: none is taken for another. */
function send(): void {
  if (
    Object.values(fields)
      .map((one) => one?.leave())
      .includes(false)
  )
    return
  emit('send', {
    number: number.value,
    taxBp: tax.value ?? 0,
    lines: lines.value.map((line) => ({ description: line.description, quantity: line.quantity ?? '', unitPriceMinor: line.price ?? 0 })),
  })
}
</script>

<template>
  <form class="card" aria-label="Enter the bill" @submit.prevent="send">
    <h2>Your bill</h2>
    <TextEntry id="bill-number" v-model="number" label="Bill number" :max="40" required />
    <fieldset v-for="(line, index) in lines" :key="index">
      <legend class="label">Line {{ index + 1 }}</legend>
      <TextEntry :id="`bill-what-${index}`" v-model="line.description" label="What" :max="200" class="wide" required />
      <DecimalField
        :id="`bill-quantity-${index}`"
        :ref="field(`quantity-${index}`)"
        label="Quantity"
        kind="quantity"
        required
        :value="line.quantity"
        @save="line.quantity = $event as string"
      />
      <DecimalField
        :id="`bill-price-${index}`"
        :ref="field(`price-${index}`)"
        :label="`Price each, ${currency}`"
        kind="money"
        required
        :value="line.price"
        @save="line.price = $event as number"
      />
    </fieldset>
    <NButton @click="lines.push({ description: '', quantity: '1', price: null })">Another line</NButton>
    <DecimalField id="bill-tax" :ref="field('tax')" label="Tax in %" kind="percent" required :value="tax" @save="tax = $event as number" />
    <p v-if="problem" class="problem" role="alert">{{ problem.reasons[0]?.sentence ?? problem.message }}</p>
    <NButton type="primary" attr-type="submit" :disabled="busy">Send the bill</NButton>
    <NButton @click="emit('leave')">Not now</NButton>
  </form>
</template>

<style scoped>
fieldset {
  border: 1px solid var(--line);
  border-radius: 6px;
  margin: 0;
  padding: 8px 12px 12px;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  min-width: 0;
}
.wide {
  grid-column: 1 / -1;
}
</style>
