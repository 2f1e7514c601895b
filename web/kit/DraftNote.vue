<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
/** Says that a form shows what was written earlier and not sent, and gives it up on one press. */
defineProps<{ kept: boolean }>()
defineEmits<{ drop: [] }>()
</script>

<template>
  <p v-if="kept" class="soft draft" role="status">
    What you wrote here before is back. It was not saved, and others may have changed this since.
    <NButton @click="$emit('drop')">Start anew</NButton>
  </p>
</template>

<style scoped>
.draft {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
</style>
