<script setup lang="ts">
import { RowButton } from '#web/kit'

/** Who a row is of, and what it says of itself. Apart, so that it is drawn anew only when that changes. */
defineProps<{ name: string; isPerson: boolean; says: string }>()
const emit = defineEmits<{ open: []; near: [HTMLElement | null] }>()
</script>

<template>
  <div class="who" role="rowheader">
    <span v-if="isPerson" @mouseenter="emit('near', $event.currentTarget as HTMLElement)" @mouseleave="emit('near', null)">
      <RowButton class="name" @click="emit('open')">{{ name }}</RowButton>
    </span>
    <strong v-else>{{ name }}</strong>
    <span class="soft says" :title="says">{{ says }}</span>
  </div>
</template>

<style scoped src="./rows.css"></style>
