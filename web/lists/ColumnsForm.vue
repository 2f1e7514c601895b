<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NCheckbox } from 'naive-ui/es/checkbox'
import { computed } from 'vue'
import { USUAL_COLUMNS } from '#core/lists'
import type { ListAsk } from '#core/lists'
import { DialogBox } from '#web/kit'

/** Which columns a list shows, always in the same order. */
const props = defineProps<{ ask: ListAsk }>()
const emit = defineEmits<{ change: [ask: ListAsk]; close: [] }>()
const showable = computed(() => props.ask.fields.filter((field) => field.shows))
function toggleColumn(name: string): void {
  const has = props.ask.columns.includes(name)
  const columns = has
    ? props.ask.columns.filter((one) => one !== name)
    : showable.value.map((field) => field.name).filter((one) => one === name || props.ask.columns.includes(one))
  if (columns.length) emit('change', { ...props.ask, columns })
}
</script>

<template>
  <DialogBox title="Columns" @close="emit('close')">
    <h1>Columns</h1>
    <ul class="columns">
      <li v-for="field in showable" :key="field.name">
        <NCheckbox :checked="ask.columns.includes(field.name)" @update:checked="toggleColumn(field.name)">{{ field.label }}</NCheckbox>
      </li>
    </ul>
    <p class="acts">
      <NButton type="primary" data-first @click="emit('close')">Close</NButton>
      <NButton @click="emit('change', { ...ask, columns: USUAL_COLUMNS[ask.kind] })">The usual ones</NButton>
    </p>
  </DialogBox>
</template>

<style scoped>
.columns {
  list-style: none;
  margin: 10px 0;
  padding: 0;
  columns: 3;
}
.acts {
  display: flex;
  gap: 8px;
}
@media (max-width: 900px) {
  .columns {
    columns: 2;
  }
}
</style>
