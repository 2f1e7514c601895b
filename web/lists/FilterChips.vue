<script setup lang="ts">
import { computed } from 'vue'
import { askedField, clauseWords } from '#core/lists'
import type { ListAsk } from '#core/lists'
import { PickField, RowButton } from '#web/kit'
import { amountWords } from './cellWords'

/** The filters of a list in words: pressed to be changed, taken away, or another added. */
const props = defineProps<{ ask: ListAsk; names: Record<string, Record<string, string>> }>()
const emit = defineEmits<{ change: [field: string]; away: [field: string]; add: [field: string] }>()
const nameOf = (field: { name: string; register?: string }, id: string) =>
  id === 'me' ? 'me' : id === 'mine' ? 'my team' : (props.names[field.name]?.[id] ?? '…')
const chips = computed(() =>
  props.ask.clauses.map((clause) => ({ clause, words: clauseWords(askedField(props.ask, clause.field), clause, nameOf, amountWords) })),
)
const fieldsLeft = computed(() => props.ask.fields.filter((field) => !field.unasked && !props.ask.clauses.some((clause) => clause.field === field.name)))
</script>

<template>
  <div class="chips" aria-label="Filters">
    <span v-for="chip in chips" :key="chip.clause.field" class="chip">
      <RowButton class="plain" :aria-label="`Change the filter ${chip.words}`" @click="emit('change', chip.clause.field)">
        <span>{{ chip.words }}</span>
      </RowButton>
      <RowButton class="plain off" :aria-label="`Take the filter ${askedField(ask, chip.clause.field).label} away`" @click="emit('away', chip.clause.field)">
        ×
      </RowButton>
    </span>
    <PickField
      id="add-filter"
      label-hidden
      class="add"
      label="Add a filter"
      placeholder="Add a filter (F)"
      :value="null"
      :choices="fieldsLeft.map((field) => ({ value: field.name, label: field.label }))"
      @pick="emit('add', $event as string)"
    />
  </div>
</template>

<style scoped>
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 0 12px 8px;
}
.chip {
  display: inline-flex;
  align-items: center;
  max-width: 100%;
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  background: var(--shoal-faint);
  font-size: 13px;
  min-height: 28px;
}
.chip button:first-child {
  padding: 2px 4px 2px 10px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.chip:hover {
  border-color: var(--tide);
}
.off {
  padding: 2px 9px 2px 5px;
  font-size: 16px;
  line-height: 1;
}
.off:hover {
  color: var(--buoy);
}
.add {
  width: 176px;
}
.add :deep(label) {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
</style>
