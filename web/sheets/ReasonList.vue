<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import type { Reason } from '#core/kit'

/** Why something is not possible, or, `missing`, what is lacking: each reason leads to its field. */
defineProps<{ reasons: readonly Reason[]; missing?: boolean }>()
const emit = defineEmits<{ jump: [field: string] }>()
</script>

<template>
  <ul class="reasons" :class="{ missing }">
    <li v-for="reason in reasons" :key="`${reason.code} ${reason.sentence}`">
      <NButton v-if="reason.field" text type="primary" class="link" @click="emit('jump', reason.field)">{{ reason.sentence }}</NButton>
      <span v-else>{{ reason.sentence }}</span>
    </li>
  </ul>
</template>

<style scoped>
.reasons {
  margin: 0;
  padding: 0;
  list-style: none;
}
.missing {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 18px;
}
.missing li::before {
  content: '○ ';
  color: var(--buoy);
}
</style>
