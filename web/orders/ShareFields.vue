<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import { DecimalField, PickField } from '#web/kit'
import type { Choice } from '#web/kit'

/** Who pays which share. Saved when the shares are whole, so that half an edit is never kept. */
const props = defineProps<{
  shares: { payerId: number; payerCode: string; payerName: string; shareBp: number }[]
  choices: Choice[]
  disabled?: boolean
  problem?: string
}>()
const emit = defineEmits<{ save: [{ payerId: number; shareBp: number }[]] }>()
interface Line {
  payerId: number | null
  percent: number | null
}
const fresh = () => props.shares.map((share): Line => ({ payerId: share.payerId, percent: share.shareBp }))
const lines = ref<Line[]>(fresh())
watch(
  () => JSON.stringify(props.shares),
  () => (lines.value = fresh()),
)
const parsed = computed(() =>
  lines.value.flatMap((line) => (line.payerId && line.percent !== null && line.percent >= 0 ? [{ payerId: line.payerId, shareBp: line.percent }] : [])),
)
const sum = computed(() => parsed.value.reduce((total, line) => total + line.shareBp, 0))
const whole = computed(() => parsed.value.length === lines.value.length && sum.value === 10_000)

function change(): void {
  if (whole.value) emit('save', parsed.value)
}
function remove(index: number): void {
  lines.value.splice(index, 1)
  if (lines.value.length === 1) lines.value[0]!.percent = 10_000
  change()
}
</script>

<template>
  <fieldset id="f-shares" class="shares">
    <legend class="soft">Who pays</legend>
    <div v-for="(line, index) in lines" :key="index" class="share">
      <PickField
        :id="`payer-${index}`"
        :label="`Payer ${index + 1}`"
        :value="line.payerId"
        :choices="choices"
        :disabled="disabled"
        @pick="((line.payerId = $event as number), change())"
      />
      <DecimalField
        :id="`share-${index}`"
        label="Share in %"
        kind="percent"
        :value="line.percent"
        :disabled="disabled"
        @save="((line.percent = $event as number | null), change())"
      />
      <NButton v-if="!disabled && lines.length > 1" :aria-label="`Remove payer ${index + 1}`" @click="remove(index)">Remove</NButton>
    </div>
    <div v-if="!disabled" class="acts">
      <NButton @click="lines.push({ payerId: null, percent: lines.length ? null : 10_000 })">Add a payer</NButton>
    </div>
    <p v-if="problem" class="problem">{{ problem }}</p>
    <p v-else-if="lines.length && !whole" class="problem">The shares add to {{ sum / 100 }} %. They are saved when they add to 100 %.</p>
  </fieldset>
</template>

<style scoped>
.shares {
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 8px 12px 12px;
  margin: 0;
  display: grid;
  gap: 8px;
  min-width: 0;
}
legend {
  font-size: 12px;
  padding: 0 4px;
}
.share {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 110px auto;
  gap: 10px;
  align-items: end;
}
</style>
