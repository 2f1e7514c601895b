<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { printLabels } from '#contract/places'
import type { Labelled } from '#contract/places'
import { counted } from '#core/kit'
import { LABEL_SHEETS, LABEL_SIZES } from '#core/places'
import type { LabelSize } from '#core/places'
import { ChoiceEntry, address } from '#web/kit'

/** Labels for what is chosen: sheets to print, with a code to scan. */
const MOST = 500
const props = defineProps<{ kind: Labelled; ids: number[] }>()
const SAYS: Record<Labelled, { name: string; does: string }> = {
  places: { name: 'place', does: 'a code opens the Counter there' },
  assets: { name: 'asset', does: 'a code opens the Counter there' },
  parts: { name: 'part', does: 'a technician scans it to use one' },
  equipment: { name: 'piece', does: 'a technician scans it to take it along' },
}
const size = ref<LabelSize>('small')
const sheets = computed(() => {
  const { columns, rows } = LABEL_SHEETS[size.value]
  return Math.ceil(props.ids.length / (columns * rows))
})
const href = computed(() => address(printLabels, { kind: props.kind, ids: props.ids.slice(0, MOST).join(','), size: size.value }))
</script>

<template>
  <div class="bar" role="group" aria-label="Labels to print">
    <p>Labels for {{ counted(ids.length, SAYS[kind].name) }}: {{ SAYS[kind].does }}.</p>
    <ChoiceEntry id="label-size" v-model="size" inline label="Size" :options="LABEL_SIZES.map((one) => ({ value: one, label: LABEL_SHEETS[one].name }))" />
    <p v-if="ids.length > MOST" class="problem">Only {{ MOST }} labels at a time; the first {{ MOST }} are printed.</p>
    <NButton tag="a" type="primary" :href="href" target="_blank" rel="noopener">Labels on {{ counted(sheets, 'sheet') }}</NButton>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  padding: 6px 12px;
  background: var(--shoal);
  border-top: 1px solid var(--line);
  font-size: 13px;
}
.bar p {
  margin: 0;
}
</style>
