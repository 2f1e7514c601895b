<script setup lang="ts">
import { NCheckbox } from 'naive-ui/es/checkbox'
import { ALWAYS_NEEDED, COMPLETENESS, COMPLETENESS_LINES, ORDER_KIND_NAMES, ORDER_KINDS } from '#core/orders'
import type { CompletenessLine, CompletenessRules, OrderKind } from '#core/orders'

/** What has to be known before an order can be submitted, for each kind of work. */
const props = defineProps<{ rules: CompletenessRules }>()
const emit = defineEmits<{ save: [CompletenessRules] }>()
function set(kind: OrderKind, line: CompletenessLine, needed: boolean): void {
  const now = COMPLETENESS_LINES.filter((one) => (one === line ? needed : props.rules[kind].includes(one)))
  emit('save', { ...props.rules, [kind]: now })
}
</script>

<template>
  <div class="scroll">
    <table class="plain-table">
      <thead>
        <tr>
          <th>Known before it is submitted</th>
          <th v-for="kind in ORDER_KINDS" :key="kind">{{ ORDER_KIND_NAMES[kind] }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="line in COMPLETENESS_LINES" :key="line">
          <td>{{ COMPLETENESS[line].name }}</td>
          <td v-for="kind in ORDER_KINDS" :key="kind">
            <span v-if="ALWAYS_NEEDED.includes(line)" class="soft">always</span>
            <NCheckbox
              v-else
              :checked="rules[kind].includes(line)"
              :aria-label="`${COMPLETENESS[line].name}, ${ORDER_KIND_NAMES[kind]}`"
              @update:checked="(on: boolean) => set(kind, line, on)"
            />
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
</style>
