<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import type { Problem } from '#contract/kit'

/** What failed, what is kept, and the way on. */
defineProps<{ problem: Problem }>()
defineEmits<{ retry: [] }>()
</script>

<template>
  <div class="empty" role="alert">
    <h2>{{ problem.status === 403 ? 'Not yours to see' : problem.title }}</h2>
    <p>{{ problem.detail }}</p>
    <NButton v-if="problem.status !== 403 && problem.status !== 404" @click="$emit('retry')">Try again</NButton>
  </div>
</template>
