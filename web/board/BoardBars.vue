<script setup lang="ts">
import type { Bar, Way } from './drawn'

/** The visits of one row. Apart from what is held over it, so that they are not drawn anew with every move of the pointer. */
defineProps<{ bars: Bar[]; ways: Way[]; lifted: number | null; opened: number | null; leaves: ((bar: Bar) => boolean) | null }>()
const emit = defineEmits<{ press: [Bar]; key: [KeyboardEvent, Bar] }>()
</script>

<template>
  <span v-for="way in ways" :key="`w${way.key}`" class="way" :class="{ tight: way.tight }" :title="way.says" :style="way.style" />
  <div
    v-for="bar in bars"
    :key="bar.visit.id"
    class="visit"
    role="button"
    tabindex="0"
    aria-keyshortcuts="Space"
    :class="[bar.classes, { lifted: lifted === bar.visit.id, opened: opened === bar.visit.id, leaves: leaves?.(bar) }]"
    :style="bar.style"
    :title="bar.says"
    :aria-label="bar.says"
    :data-visit="bar.visit.id"
    @click="emit('press', bar)"
    @keydown="emit('key', $event, bar)"
  >
    <span v-if="!bar.isTiny" class="mono" aria-hidden="true">{{ bar.text }}</span>
    <span v-if="bar.gauge && !bar.isTiny" class="gauge" aria-hidden="true"><span :class="bar.gauge.standing" :style="{ width: bar.gauge.width }" /></span>
  </div>
</template>

<style scoped src="./rows.css"></style>
