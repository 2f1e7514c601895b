<script setup lang="ts">
/** Beside a field: somebody else changed it while the Sheet was open. */
defineProps<{ by: string | null }>()
</script>

<template>
  <span v-if="by" class="fresh" role="status">changed by {{ by }}</span>
</template>

<style scoped>
.fresh {
  margin-left: 6px;
  padding: 0 6px;
  border-left: 3px solid var(--tide);
  background: var(--shoal);
  color: var(--ink);
  border-radius: 0 3px 3px 0;
}
</style>
