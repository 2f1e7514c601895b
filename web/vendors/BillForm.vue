<script setup lang="ts">
import { ref } from 'vue'
import type { CallProblem } from '#web/kit'

/** The vendor's bill, line by line, as it will be paid. */
defineProps<{ currency: string; busy: boolean; problem: CallProblem | null }>()
const emit = defineEmits<{ send: [{ number: string; taxBp: number; lines: { description: string; quantity: string; unitPriceMinor: number }[] }]; leave: [] }>()
const number = ref('')
const tax = ref('13.5')
const lines = ref([{ description: '', quantity: '1', price: '' }])

function send(): void {
  emit('send', {
    number: number.value,
    taxBp: Math.round(Number(tax.value) * 100),
    lines: lines.value.map((line) => ({ description: line.description, quantity: line.quantity, unitPriceMinor: Math.round(Number(line.price) * 100) })),
  })
}
</script>

<template>
  <form class="card" aria-label="Enter the bill" @submit.prevent="send">
    <h2>Your bill</h2>
    <div class="field">
      <label for="bill-number">Bill number</label
      ><input id="bill-number" v-model="number" class="entry" required maxlength="40" :aria-invalid="!!problem?.at('number')" />
    </div>
    <fieldset v-for="(line, index) in lines" :key="index">
      <legend class="label">Line {{ index + 1 }}</legend>
      <div class="field wide">
        <label :for="`bill-what-${index}`">What</label><input :id="`bill-what-${index}`" v-model="line.description" class="entry" required maxlength="200" />
      </div>
      <div class="field">
        <label :for="`bill-quantity-${index}`">Quantity</label
        ><input :id="`bill-quantity-${index}`" v-model="line.quantity" class="entry mono" required pattern="\d{1,6}(\.\d{1,3})?" inputmode="decimal" />
      </div>
      <div class="field">
        <label :for="`bill-price-${index}`">Price each, {{ currency }}</label
        ><input :id="`bill-price-${index}`" v-model="line.price" class="entry mono" required pattern="\d{1,7}(\.\d{1,2})?" inputmode="decimal" />
      </div>
    </fieldset>
    <button class="push" type="button" @click="lines.push({ description: '', quantity: '1', price: '' })">Another line</button>
    <div class="field">
      <label for="bill-tax">Tax in %</label><input id="bill-tax" v-model="tax" class="entry mono" required pattern="\d{1,2}(\.\d{1,2})?" inputmode="decimal" />
    </div>
    <p v-if="problem" class="problem" role="alert">{{ problem.reasons[0]?.sentence ?? problem.message }}</p>
    <button class="push first" :disabled="busy">Send the bill</button>
    <button class="push" type="button" @click="emit('leave')">Not now</button>
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
