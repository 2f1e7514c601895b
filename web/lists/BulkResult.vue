<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed } from 'vue'
import type { BulkRow } from '#contract/lists'
import { counted } from '#core/kit'
import type { BulkRule } from '#core/lists'
import { ORDER_STATE_NAMES } from '#core/orders'
import { REQUEST_STATE_NAMES } from '#core/requests'
import { DialogBox } from '#web/kit'

/** How every row fared: what went, what did not and why. */
const props = defineProps<{ rows: BulkRow[]; rule: BulkRule; busy: boolean }>()
defineEmits<{ close: []; takeBack: [BulkRow[]] }>()
const went = computed(() => props.rows.filter((row) => row.moved))
const stayed = computed(() => props.rows.filter((row) => !row.moved))
const stateName = (state: string) => ({ ...ORDER_STATE_NAMES, ...REQUEST_STATE_NAMES })[state as 'new'] ?? state
</script>

<template>
  <DialogBox :title="rule.label" wide @close="$emit('close')">
    <h1>{{ rule.label }}: {{ went.length }} of {{ rows.length }} went</h1>
    <p v-if="stayed.length" class="soft">
      {{ counted(stayed.length, 'row') }} stayed as {{ stayed.length === 1 ? 'it was' : 'they were' }} and {{ stayed.length === 1 ? 'is' : 'are' }} still
      marked.
    </p>
    <div class="table">
      <table class="plain-table">
        <thead>
          <tr>
            <th>Number</th>
            <th>What happened</th>
            <th>State now</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in [...stayed, ...went]" :key="row.id" :class="{ stayed: !row.moved }">
            <td class="mono">{{ row.number }}</td>
            <td>{{ row.moved ? 'Went' : row.reasons.map((reason) => reason.sentence).join(' ') }}</td>
            <td>{{ stateName(row.state) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="acts">
      <NButton type="primary" data-first @click="$emit('close')">Close</NButton>
      <NButton v-if="rule.back && went.length" :disabled="busy" @click="$emit('takeBack', went)">
        Take back the {{ went.length }} that went{{ rule.backAs ? `, ${rule.backAs}` : '' }}
      </NButton>
    </p>
  </DialogBox>
</template>

<style scoped>
.table {
  max-height: 50vh;
  overflow: auto;
  margin: 10px 0;
}
.stayed td:nth-child(2) {
  color: var(--buoy);
}
.acts {
  display: flex;
  gap: 8px;
}
td {
  overflow-wrap: anywhere;
}
td.mono,
td:last-child {
  white-space: nowrap;
}
</style>
