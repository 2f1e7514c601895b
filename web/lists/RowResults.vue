<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed } from 'vue'
import { counted } from '#core/kit'
import { DialogBox } from '#web/kit'

/** How every row of several fared: first those that stayed, with why; then those that went, which can be taken back. */
export interface RowResult {
  id: number
  name: string
  went: boolean
  says: string
  /** How it stands now, where rows have states. */
  state?: string
}
const props = defineProps<{ title: string; heading: string; one: string; rows: RowResult[]; takeBack: string | null; busy: boolean }>()
defineEmits<{ close: []; takeBack: [] }>()
const stayed = computed(() => props.rows.filter((row) => !row.went))
const went = computed(() => props.rows.filter((row) => row.went))
const stated = computed(() => props.rows.some((row) => row.state !== undefined))
</script>

<template>
  <DialogBox :title="title" wide @close="$emit('close')">
    <h1>{{ heading }}</h1>
    <p v-if="stayed.length" class="soft">
      {{ counted(stayed.length, one) }} stayed as {{ stayed.length === 1 ? 'it was' : 'they were' }} and {{ stayed.length === 1 ? 'is' : 'are' }} still marked.
    </p>
    <div class="table">
      <table class="plain-table">
        <thead>
          <tr>
            <th>{{ stated ? 'Number' : 'Record' }}</th>
            <th>What happened</th>
            <th v-if="stated">State now</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in [...stayed, ...went]" :key="row.id" :class="{ stayed: !row.went }">
            <td :class="{ mono: stated }">{{ row.name }}</td>
            <td>{{ row.says }}</td>
            <td v-if="stated" class="state">{{ row.state }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="acts">
      <NButton type="primary" data-first @click="$emit('close')">Close</NButton>
      <NButton v-if="takeBack && went.length" :disabled="busy" @click="$emit('takeBack')">{{ takeBack }}</NButton>
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
td.state {
  white-space: nowrap;
}
</style>
