<script setup lang="ts">
import { CONSEQUENCE_NAMES, CONSEQUENCES, PRIORITY_NAMES, URGENCIES, URGENCY_NAMES } from '#core/requests'
import type { Consequence, PriorityMatrix, Urgency } from '#core/requests'
import { PriorityBar } from '#web/kit'
import DecisionGrid from './DecisionGrid.vue'

/** Who is affected and how soon, in one press, with the priority each gives. */
defineProps<{ matrix: PriorityMatrix; consequence: Consequence | null; urgency: Urgency | null; disabled?: boolean }>()
const emit = defineEmits<{ choose: [{ consequence: Consequence; urgency: Urgency }] }>()
</script>

<template>
  <DecisionGrid
    id="f-consequence"
    data-field="urgency"
    label="Who is affected, and how soon"
    :rows="CONSEQUENCES"
    :row-names="CONSEQUENCE_NAMES"
    :columns="URGENCIES"
    :column-names="URGENCY_NAMES"
    :row="consequence"
    :column="urgency"
    :disabled="disabled"
    :gives="(row, column) => PRIORITY_NAMES[matrix[row][column]]"
    @choose="(row, column) => emit('choose', { consequence: row, urgency: column })"
  >
    <template #default="{ row, column }"><PriorityBar :priority="matrix[row][column]" /></template>
  </DecisionGrid>
</template>
