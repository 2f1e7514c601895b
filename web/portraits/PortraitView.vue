<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink, useRoute } from 'vue-router'
import { REGISTER_NAMES } from '#core/registers'
import type { RegisterName } from '#core/registers'
import RecordPortrait from './RecordPortrait.vue'

/** A Portrait as a page of its own. */
const route = useRoute()
const register = computed(() => route.params.register as RegisterName)
const id = computed(() => Number(route.params.id))
</script>

<template>
  <div class="page">
    <p class="back">
      <RouterLink :to="`/registers/${register}`">{{ REGISTER_NAMES[register] }}</RouterLink>
    </p>
    <RecordPortrait :id="id" :key="`${register} ${id}`" :register="register" />
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  overflow: auto;
  background: var(--sheet);
}
.back {
  padding: 10px 20px 0;
  font-size: 13px;
}
</style>
