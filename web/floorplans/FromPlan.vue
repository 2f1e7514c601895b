<script setup lang="ts">
import { MapPinned } from '@lucide/vue'
import { NButton } from 'naive-ui/es/button'
import { defineAsyncComponent, ref } from 'vue'
import type { Drawing, DrawnAsset, DrawnSpace, OnPlan } from './drawn'

/** Opens a plan to choose from; the drawing comes with the first that is opened. */
const PlanChoice = defineAsyncComponent(() => import('./PlanChoice.vue'))
defineProps<{
  /** A mark instead of words, beside a narrow field. */
  brief?: boolean
  title: string
  takes: 'space' | 'either' | 'asset'
  plans: () => Promise<{ rows: { id: number; label: string }[]; first: number | null }>
  read: (planId: number) => Promise<Drawing>
}>()
const emit = defineEmits<{ take: [what: OnPlan, thing: DrawnSpace | DrawnAsset] }>()
const open = ref(false)
function take(what: OnPlan, thing: DrawnSpace | DrawnAsset): void {
  open.value = false
  emit('take', what, thing)
}
</script>

<template>
  <NButton v-if="brief" aria-label="From the plan" title="From the plan" @click="open = true"><MapPinned :size="18" /></NButton>
  <NButton v-else @click="open = true">From the plan</NButton>
  <PlanChoice v-if="open" :title="title" :takes="takes" :plans="plans" :read="read" @close="open = false" @take="take" />
</template>
