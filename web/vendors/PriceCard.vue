<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import type { PassSheet } from '#contract/vendors'
import { formatMinor } from '#core/kit'
import { DecimalField, TextEntry, vBegins } from '#web/kit'
import type { CallProblem } from '#web/kit'

/** What it costs, said before work begins; the desk agrees to it or calls. */
const props = defineProps<{ price: PassSheet['price']; may: boolean; currency: string; busy: boolean; problem: CallProblem | null }>()
const emit = defineEmits<{ name: [price: { netMinor: number; taxBp: number; note: string }] }>()
const open = ref(false)
const net = ref<number | null>(props.price?.netMinor ?? null)
const tax = ref<number | null>(props.price?.taxBp ?? 1_350)
const note = ref(props.price?.note ?? '')
const netField = ref<InstanceType<typeof DecimalField> | null>(null)
const taxField = ref<InstanceType<typeof DecimalField> | null>(null)
function send(): void {
  const read = [netField.value!.leave(), taxField.value!.leave()]
  if (read.includes(false) || net.value === null) return
  emit('name', { netMinor: net.value, taxBp: tax.value ?? 0, note: note.value.trim() })
}
defineExpose({ close: () => (open.value = false) })
</script>

<template>
  <section class="card" aria-label="Your price">
    <h2>Your price</h2>
    <p v-if="price" role="status">
      <strong class="mono">{{ formatMinor(price.netMinor) }} {{ currency }}</strong> before tax{{ price.note ? `: ${price.note}` : '' }}<br />
      <span class="label">{{ price.state === 'taken' ? 'The desk has agreed to it.' : 'The desk has it.' }}</span>
    </p>
    <p v-else-if="!open" class="label">Say what it costs before you begin, if you can.</p>
    <form v-if="open" v-begins="'price'" class="asks" aria-label="Name a price" @submit.prevent="send" @keydown.esc="open = false">
      <DecimalField
        id="pass-net"
        ref="netField"
        :label="`In all before tax, ${currency}`"
        kind="money"
        required
        :value="net"
        :problem="problem?.at('netMinor')"
        @save="net = $event as number"
      />
      <DecimalField
        id="pass-tax"
        ref="taxField"
        label="Tax in %"
        kind="percent"
        required
        :value="tax"
        :problem="problem?.at('taxBp')"
        @save="tax = $event as number"
      />
      <TextEntry id="pass-price-note" v-model="note" label="What it covers" long :max="1000" :problem="problem?.at('note')" />
      <p v-if="problem?.apart" class="problem" role="alert">{{ problem.apart }}</p>
      <NButton type="primary" attr-type="submit" :disabled="busy">Send the price</NButton>
      <NButton @click="open = false">Not now</NButton>
    </form>
    <NButton v-else-if="may && price?.state !== 'taken'" data-opens="price" @click="open = true">{{ price ? 'Another price' : 'Name a price' }}</NButton>
  </section>
</template>

<style scoped>
p {
  margin: 0;
}
</style>
