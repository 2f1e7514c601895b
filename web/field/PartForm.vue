<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NRadio, NRadioGroup } from 'naive-ui/es/radio'
import { computed, ref, watch } from 'vue'
import type { FoundPart, PlannedPart } from '#contract/field'
import { inTakingOrder, missingOf, takenFrom } from '#core/stock'
import { FieldFrame } from '#web/kit'
import type { CallProblem } from '#web/kit'
import PartPick from './PartPick.vue'

/** Takes a part for the job: which, how many, out of which store; what is nowhere is asked for. */
const props = defineProps<{ planned: readonly PlannedPart[]; busy: boolean; problem: CallProblem | null }>()
type Said = { partId: number; quantity: string }
const emit = defineEmits<{
  use: [part: Said & { storeId?: number }, shown: FoundPart]
  ask: [part: Said, shown: FoundPart]
  leave: []
}>()
const part = ref<FoundPart | null>(null)
const quantity = ref('1')
const picked = ref<InstanceType<typeof PartPick> | null>(null)
/** What is kept for the job is free for it alone. */
const stores = computed(() => {
  if (!part.value) return []
  const kept = props.planned.find(({ partId }) => partId === part.value!.id)?.kept ?? []
  const lies = part.value.lies.map((one) => {
    const mine = kept.find(({ storeId }) => storeId === one.storeId)
    return mine ? { ...one, kept: mine.quantity, free: String(Number(one.free) + Number(mine.quantity)) } : { ...one, kept: '0' }
  })
  const elsewhere = kept
    .filter(({ storeId }) => !lies.some((one) => one.storeId === storeId))
    .map(({ storeId, store, quantity: many }) => ({ storeId, store, kept: many, free: many, mine: false }))
  return inTakingOrder([...lies, ...elsewhere])
})
const from = ref<number | null>(null)
watch(stores, (now) => (from.value = (takenFrom(now, quantity.value || '0') ?? now[0])?.storeId ?? null), { immediate: true })
const chosen = computed(() => stores.value.find(({ storeId }) => storeId === from.value) ?? null)
const isQuantity = computed(() => Number(quantity.value) > 0)
const missing = computed(() => (part.value && isQuantity.value ? missingOf(chosen.value?.free ?? '0', quantity.value) : '0'))
const unit = computed(() => part.value?.unit ?? '')

function send(how: 'use' | 'ask'): void {
  if (!picked.value!.leave() || !part.value) return
  const said = { partId: part.value.id, quantity: quantity.value }
  if (how === 'ask') emit('ask', said, part.value)
  else emit('use', from.value === null ? said : { ...said, storeId: from.value }, part.value)
}
</script>

<template>
  <form class="card" aria-label="Use a part" @submit.prevent="send(Number(chosen?.free ?? 0) > 0 ? 'use' : 'ask')">
    <h2>Use a part</h2>
    <PartPick id="part" ref="picked" v-model="part" v-model:quantity="quantity" :planned="planned" :problem-at="(field) => problem?.at(field)" />
    <FieldFrame v-if="part && stores.length > 1" label="Out of">
      <NRadioGroup v-model:value="from" class="stores" name="part-store" role="radiogroup" aria-label="Out of">
        <NRadio v-for="one in stores" :key="one.storeId" :value="one.storeId">
          {{ one.mine ? `My van, ${one.store}` : one.store }}
          <span class="label">{{ Number(one.free) }} {{ unit }}{{ Number(one.kept) ? `, ${Number(one.kept)} kept for this job` : '' }}</span>
        </NRadio>
      </NRadioGroup>
    </FieldFrame>
    <p v-else-if="part && chosen" class="label">Out of {{ chosen.mine ? 'my van' : chosen.store }}, {{ Number(chosen.free) }} {{ unit }} there.</p>
    <p v-if="part && Number(missing)" role="status">
      {{ chosen && Number(chosen.free) ? `${Number(missing)} ${unit} more than there are.` : `There is none of it in any store.` }}
      It can be asked for: the job is given it when it comes.
    </p>
    <p v-if="problem" class="problem" role="alert">{{ problem.reasons[0]?.sentence ?? problem.message }}</p>
    <NButton v-if="!part || Number(chosen?.free ?? 0) > 0" type="primary" attr-type="submit" :disabled="busy || !part">Use it</NButton>
    <NButton v-if="part && Number(missing)" :type="chosen && Number(chosen.free) ? 'default' : 'primary'" :disabled="busy" @click="send('ask')"
      >Ask for it to be bought</NButton
    >
    <NButton @click="emit('leave')">Not now</NButton>
  </form>
</template>

<style scoped>
.stores {
  display: grid;
}
.stores > * {
  min-height: 44px;
  align-items: center;
}
p {
  margin: 0;
}
</style>
