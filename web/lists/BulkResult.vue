<script setup lang="ts">
import { computed } from 'vue'
import type { BulkRow } from '#contract/lists'
import type { BulkRule } from '#core/lists'
import { ORDER_STATE_NAMES } from '#core/orders'
import { REQUEST_STATE_NAMES } from '#core/requests'
import RowResults from './RowResults.vue'

/** How every row of a move fared: what went, what did not and why. */
const props = defineProps<{ rows: BulkRow[]; rule: BulkRule; busy: boolean }>()
defineEmits<{ close: []; takeBack: [BulkRow[]] }>()
const went = computed(() => props.rows.filter((row) => row.moved))
const stateName = (state: string) => ({ ...ORDER_STATE_NAMES, ...REQUEST_STATE_NAMES })[state as 'new'] ?? state
const results = computed(() =>
  props.rows.map((row) => ({
    id: row.id,
    name: row.number,
    went: row.moved,
    says: row.moved ? 'Went' : row.reasons.map((reason) => reason.sentence).join(' '),
    state: stateName(row.state),
  })),
)
const back = computed(() => (props.rule.back ? `Take back the ${went.value.length} that went${props.rule.backAs ? `, ${props.rule.backAs}` : ''}` : null))
</script>

<template>
  <RowResults
    :title="rule.label"
    :heading="`${rule.label}: ${went.length} of ${rows.length} went`"
    one="row"
    :rows="results"
    :take-back="back"
    :busy="busy"
    @close="$emit('close')"
    @take-back="$emit('takeBack', went)"
  />
</template>
