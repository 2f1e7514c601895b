<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NDrawer } from 'naive-ui/es/drawer'
import { computed, watch } from 'vue'
import { RouterLink, useRoute } from 'vue-router'
import { addressOf, usePortrait } from '#web/kit'
import RecordPortrait from './RecordPortrait.vue'

/** A Portrait beside what one is working on, which stays as it is. */
const portrait = usePortrait()
const route = useRoute()
const width = computed(() => `${Math.min(600, window.innerWidth)}px`)
watch(
  () => route.fullPath,
  () => portrait.close(),
)
</script>

<template>
  <NDrawer
    :show="portrait.shown !== null"
    :width="width"
    placement="right"
    show-mask="transparent"
    :block-scroll="false"
    :trap-focus="true"
    :close-on-esc="true"
    aria-label="Portrait"
    @update:show="(shown: boolean) => shown || portrait.close()"
  >
    <div v-if="portrait.shown" class="beside" role="dialog" aria-modal="true" aria-label="Portrait">
      <p class="top">
        <RouterLink :to="addressOf(portrait.shown)">Open as a page</RouterLink>
        <NButton text type="primary" @click="portrait.close()">Close <kbd class="mono">Esc</kbd></NButton>
      </p>
      <RecordPortrait :id="portrait.shown.id" :key="addressOf(portrait.shown)" :register="portrait.shown.register" />
    </div>
  </NDrawer>
</template>

<style scoped>
.beside {
  height: 100%;
  overflow: auto;
  background: var(--sheet);
  color: var(--ink);
}
.top {
  display: flex;
  justify-content: space-between;
  padding: 10px 20px 0;
  font-size: 13px;
}
</style>
