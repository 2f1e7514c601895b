<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { DialogBox, useActs } from '#web/kit'

defineEmits<{ close: [] }>()
const acts = useActs()
  .all()
  .filter((act) => act.key)
const fixed = [
  { keys: 'Ctrl K or /', does: 'Find any record, run any act' },
  { keys: '↑ ↓', does: 'Move in the queue' },
  { keys: 'Enter', does: 'Go into the Sheet' },
  { keys: 'Esc', does: 'Back to the queue, or out of a dialog' },
  { keys: 'Ctrl Enter', does: 'Save the form you are in' },
]
</script>

<template>
  <DialogBox title="Keys" @close="$emit('close')">
    <h1>Keys on this screen</h1>
    <table class="plain-table">
      <tbody>
        <tr v-for="row in fixed" :key="row.keys">
          <td class="mono">{{ row.keys }}</td>
          <td>{{ row.does }}</td>
        </tr>
        <tr v-for="act in acts" :key="act.label">
          <td class="mono">{{ act.key!.toUpperCase() }}</td>
          <td>
            {{ act.label }}<span v-if="act.whyNot" class="soft"> ({{ act.whyNot }})</span>
          </td>
        </tr>
      </tbody>
    </table>
    <NButton data-first @click="$emit('close')">Close</NButton>
  </DialogBox>
</template>
