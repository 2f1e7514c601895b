<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed } from 'vue'
import { askedField, isOfDays, PAGE_SIZES } from '#core/lists'
import type { ListAsk, PageSize } from '#core/lists'
import { ListEntry, texts } from '#web/kit'
import { sortedBy } from './sortedBy'

/** How a list is shown: its order, groups, rows of a page, columns. */
const props = defineProps<{ ask: ListAsk }>()
const emit = defineEmits<{ change: [ask: ListAsk]; columns: [] }>()
const groupable = computed(() => props.ask.fields.filter((field) => field.groups))
const sortable = computed(() => props.ask.fields.filter((field) => field.sorts))
const labelled = (fields: readonly { name: string; label: string }[]) => fields.map(({ name, label }) => ({ value: name, label }))
/** Which end of the order comes first, in words that fit what it goes by. */
const way = computed(() => {
  const { field, down } = props.ask.sort
  if (field === 'priority') return down ? 'least pressing first' : 'most pressing first'
  const { shape } = askedField(props.ask, field)
  if (isOfDays(shape)) return down ? 'latest first' : 'earliest first'
  if (shape === 'text' && field !== 'number') return down ? 'from Z to A' : 'from A to Z'
  return down ? 'highest first' : 'lowest first'
})
</script>

<template>
  <div class="looks">
    <ListEntry
      id="list-order"
      inline
      small
      label="Order"
      :model-value="ask.sort.field"
      :options="labelled(sortable)"
      @update:model-value="$event && emit('change', sortedBy(ask, $event))"
    />
    <NButton size="small" :aria-label="`Order: ${way}; turn it round`" @click="emit('change', sortedBy(ask, ask.sort.field))">
      {{ way }}
    </NButton>
    <ListEntry
      v-if="groupable.length"
      id="list-group"
      inline
      small
      label="Group"
      clearable
      placeholder="not at all"
      :model-value="ask.group"
      :options="labelled(groupable)"
      @update:model-value="emit('change', { ...ask, group: $event })"
    />
    <ListEntry
      id="list-size"
      class="rows"
      inline
      small
      label="Rows"
      :model-value="ask.size"
      :options="texts(PAGE_SIZES)"
      @update:model-value="$event && emit('change', { ...ask, size: $event as PageSize })"
    />
    <NButton size="small" @click="emit('change', { ...ask, compact: !ask.compact })">{{ ask.compact ? 'Comfortable' : 'Compact' }}</NButton>
    <NButton size="small" @click="emit('columns')">Columns</NButton>
  </div>
</template>

<style scoped>
.looks {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
  padding: 0 12px 8px;
  font-size: 13px;
  color: var(--ink-soft);
}
.looks > .list-entry {
  width: 170px;
}
.looks > .rows {
  width: 112px;
}
</style>
