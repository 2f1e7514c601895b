<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import type { PassSheet } from '#contract/vendors'
import { DecimalField, TextEntry, vBegins } from '#web/kit'
import type { CallProblem } from '#web/kit'

/** Parts the vendor brought along and built in; the bill starts with them. */
defineProps<{ brought: PassSheet['brought']; over: boolean; busy: boolean; problem: CallProblem | null }>()
const emit = defineEmits<{ bring: [part: { name: string; quantity: string; unit: string }]; drop: [id: number] }>()
const adding = ref(false)
const said = ref({ name: '', quantity: '1' as string | null, unit: 'pc' })
const field = ref<InstanceType<typeof DecimalField> | null>(null)
function bring(): void {
  if (field.value!.leave() && said.value.name.trim()) emit('bring', { ...said.value, name: said.value.name.trim(), quantity: said.value.quantity ?? '' })
}
defineExpose({
  clear: () => {
    said.value = { name: '', quantity: '1', unit: said.value.unit }
    adding.value = false
  },
})
</script>

<template>
  <section v-if="!over || brought.length" class="card" aria-label="Parts you brought">
    <h2>Parts you brought</h2>
    <ul v-if="brought.length" class="things">
      <li v-for="one in brought" :key="one.id">
        <span>{{ Number(one.quantity) }} {{ one.unit }} {{ one.name }}</span>
        <NButton v-if="!over" size="small" :disabled="busy" :aria-label="`Take out ${one.name}`" @click="emit('drop', one.id)">Take out</NButton>
      </li>
    </ul>
    <p v-else class="label">None yet. What you write here starts your bill.</p>
    <form v-if="adding" v-begins="'part'" class="asks" aria-label="A part you brought" @submit.prevent="bring" @keydown.esc="adding = false">
      <TextEntry id="brought-name" v-model="said.name" label="What" :max="120" required :problem="problem?.at('name')" />
      <div class="halves">
        <DecimalField
          id="brought-quantity"
          ref="field"
          label="How many"
          kind="quantity"
          required
          :value="said.quantity"
          :problem="problem?.at('quantity')"
          @save="said.quantity = $event as string"
        />
        <TextEntry id="brought-unit" v-model="said.unit" label="Unit" :max="16" required :problem="problem?.at('unit')" />
      </div>
      <p v-if="problem?.apart" class="problem" role="alert">{{ problem.apart }}</p>
      <NButton type="primary" attr-type="submit" :disabled="busy || !said.name.trim() || !said.unit.trim()">Write it down</NButton>
      <NButton @click="adding = false">Not now</NButton>
    </form>
    <NButton v-else-if="!over" data-opens="part" @click="adding = true">Add a part</NButton>
  </section>
</template>

<style scoped>
p {
  margin: 0;
}
</style>
