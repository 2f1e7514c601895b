<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import type { JobSheet } from '#contract/field'
import { usedParts } from '#core/field'
import { DecimalField } from '#web/kit'
import type { CallProblem } from '#web/kit'

/** What the job took, with what came back; what it still needs and what it waits for. */
const props = defineProps<{ job: Pick<JobSheet, 'parts' | 'planned' | 'asked'>; busy: boolean; problem: CallProblem | null }>()
type Shown = { code: string; name: string; unit: string }
const emit = defineEmits<{ back: [part: { partId: number; quantity: string }, shown: Shown] }>()
const used = computed(() => usedParts(props.job.parts))
/** Of which part something comes back. */
const back = ref<number | null>(null)
const quantity = ref('1')
/** There is one at a time. */
let field: InstanceType<typeof DecimalField> | null = null
const keepField = (one: unknown) => (field = one as typeof field)
function begin(partId: number): void {
  back.value = partId
  quantity.value = '1'
}
function send(partId: number, { code, name, unit }: Shown): void {
  if (field?.leave()) emit('back', { partId, quantity: quantity.value }, { code, name, unit })
}
/** What came back is taken off: the form is done. */
defineExpose({ close: () => (back.value = null) })
const many = (quantity: string, unit: string) => `${Number(quantity)} ${unit}`
</script>

<template>
  <section class="card" aria-label="Parts">
    <h2>Parts</h2>
    <ul class="things">
      <li v-for="one in used" :key="one.code">
        <span
          >{{ many(one.quantity, one.unit) }} {{ one.name }} <span class="mono label">{{ one.code }}</span></span
        >
        <form v-if="one.partId && back === one.partId" :aria-label="`Bring back ${one.name}`" @submit.prevent="send(one.partId, one)">
          <DecimalField
            id="back-quantity"
            :ref="keepField"
            label="How many come back"
            kind="quantity"
            required
            :value="quantity"
            :problem="problem?.at('quantity')"
            @save="quantity = $event as string"
          />
          <p v-if="problem && !problem.at('quantity')" class="problem" role="alert">{{ problem.reasons[0]?.sentence ?? problem.message }}</p>
          <div class="halves">
            <NButton type="primary" attr-type="submit" :disabled="busy">Bring back</NButton><NButton @click="back = null">Not now</NButton>
          </div>
        </form>
        <NButton v-else-if="one.partId" size="small" :aria-label="`Bring back ${one.name}`" @click="begin(one.partId)">Bring back</NButton>
      </li>
      <li v-for="one in job.planned" :key="`planned-${one.partId}`" class="label">
        <span
          >{{ many(one.quantity, one.unit) }} {{ one.name }}, planned{{
            one.kept.length ? `; ${one.kept.map((kept) => `${Number(kept.quantity)} kept in ${kept.store}`).join(', ')}` : ''
          }}</span
        >
      </li>
      <li v-for="(one, index) in job.asked" :key="`asked-${index}`" class="label">
        <span>{{ many(one.quantity, one.unit) }} {{ one.name }}, asked for</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
p {
  margin: 0;
}
</style>
