<script setup lang="ts">
import { computed } from 'vue'
import type { RecordLine } from '#contract/lists'
import { isAmount } from '#core/lists'
import type { ListField } from '#core/lists'
import { cellWords } from './cellWords'

/** One cell of a register. */
const props = defineProps<{ line: RecordLine; column: ListField; leads: boolean }>()
const words = computed(() => cellWords(props.line.cells[props.column.name], props.column))
const mono = computed(() => isAmount(props.column.shape) || ['code', 'tag', 'serial', 'phone', 'extension', 'iban'].includes(props.column.name))
</script>

<template>
  <span class="cut" :class="{ mono, strong: leads || column.name === 'name', violet: column.shape === 'money', gone: leads && line.retired }" :title="words">{{
    words
  }}</span>
</template>

<style scoped>
.cut {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.strong {
  font-weight: 600;
}
.gone {
  text-decoration: line-through;
}
</style>
