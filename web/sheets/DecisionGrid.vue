<script setup lang="ts" generic="Row extends string, Column extends string">
import { computed, nextTick, ref } from 'vue'
import { RowButton } from '#web/kit'

/**
 * Two things said at once, with what they give written in each cell: pressed, or chosen by two digits (row, column)
 * or with the arrows while the keyboard is in it.
 */
const props = defineProps<{
  id: string
  label: string
  rows: readonly Row[]
  rowNames: Record<Row, string>
  columns: readonly Column[]
  columnNames: Record<Column, string>
  row: Row | null
  column: Column | null
  /** What a cell gives, in words. */
  gives: (row: Row, column: Column) => string
  disabled?: boolean
  problem?: string
}>()
const emit = defineEmits<{ choose: [row: Row, column: Column] }>()
const root = ref<HTMLElement | null>(null)
/** Where the keyboard is: on what was chosen, otherwise in the first cell. */
const at = ref<[number, number] | null>(null)
const stop = computed<[number, number]>(
  () => at.value ?? [Math.max(0, props.row ? props.rows.indexOf(props.row) : 0), Math.max(0, props.column ? props.columns.indexOf(props.column) : 0)],
)
/** The row whose digit was pressed, waiting for the one of the column. */
const begun = ref<number | null>(null)

function choose(row: number, column: number): void {
  begun.value = null
  at.value = [row, column]
  if (!props.disabled) emit('choose', props.rows[row]!, props.columns[column]!)
}
const STEPS: Record<string, [number, number]> = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }
function keys(event: KeyboardEvent): void {
  if (event.altKey || event.ctrlKey || event.metaKey) return
  const step = STEPS[event.key]
  const digit = /^[1-9]$/.test(event.key) ? Number(event.key) - 1 : null
  if (!step && digit === null) return
  event.preventDefault()
  event.stopPropagation()
  if (step) {
    const within = (index: number, length: number) => Math.min(length - 1, Math.max(0, index))
    at.value = [within(stop.value[0] + step[0], props.rows.length), within(stop.value[1] + step[1], props.columns.length)]
    void nextTick(() => root.value?.querySelector<HTMLElement>('[tabindex="0"]')?.focus())
  } else if (begun.value === null) begun.value = digit! < props.rows.length ? digit : null
  else if (digit! < props.columns.length) choose(begun.value, digit!)
}
</script>

<template>
  <div ref="root" class="decision" @keydown="keys" @focusout="begun = null">
    <table :id="id" :aria-label="label">
      <thead>
        <tr>
          <td class="corner">{{ label }}</td>
          <th v-for="(one, index) in columns" :key="one" scope="col">
            <kbd class="mono">{{ index + 1 }}</kbd> {{ columnNames[one] }}
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(one, index) in rows" :key="one" :class="{ begun: begun === index, said: one === row }">
          <th scope="row">
            <kbd class="mono">{{ index + 1 }}</kbd> {{ rowNames[one] }}
          </th>
          <td v-for="(other, place) in columns" :key="other">
            <RowButton
              class="cell"
              :class="{ chosen: one === row && other === column }"
              :disabled="disabled"
              :tabindex="stop[0] === index && stop[1] === place ? 0 : -1"
              :aria-pressed="one === row && other === column"
              :aria-label="`${rowNames[one]}, ${columnNames[other]}: ${gives(one, other)}`"
              @click="choose(index, place)"
              ><slot :row="one" :column="other">{{ gives(one, other) }}</slot></RowButton
            >
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 13px;
}
th {
  font-weight: 400;
  text-align: left;
  padding: 2px 8px 2px 0;
  color: var(--ink-soft);
}
thead th {
  padding-left: 8px;
  white-space: nowrap;
}
thead th,
.corner {
  font-size: 12px;
  color: var(--ink-soft);
}
kbd {
  font-size: 11px;
  padding: 0 4px;
  border: 1px solid var(--line-strong);
  border-radius: 3px;
}
td {
  padding: 0;
  min-width: 86px;
}
tbody td {
  border: 1px solid var(--line);
}
.cell {
  display: flex;
  align-items: center;
  width: 100%;
  min-height: 30px;
  padding: 2px 8px;
  border-radius: 0;
}
.cell:hover:not(:disabled) {
  background: var(--shoal-faint);
}
.cell.chosen {
  background: var(--shoal);
  box-shadow: inset 0 0 0 2px var(--tide);
}
.begun th {
  color: var(--ink);
  font-weight: 600;
  background: var(--shoal);
}
.said th {
  color: var(--ink);
}
</style>
