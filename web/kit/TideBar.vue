<script setup lang="ts">
import type { StationCount } from '#contract/insight'

/** Three lengths: on time, close to target, past target. */
defineProps<{ station: StationCount }>()
</script>

<template>
  <span class="tide" aria-hidden="true">
    <span v-if="station.onTime" class="on" :style="{ flexGrow: station.onTime }" />
    <span v-if="station.close" class="close" :style="{ flexGrow: station.close }" />
    <span v-if="station.past" class="past" :style="{ flexGrow: station.past }" />
  </span>
</template>

<style scoped>
.tide {
  display: flex;
  gap: 2px;
  height: 5px;
  width: 100%;
  min-width: 48px;
  background: rgb(255 255 255 / 12%);
  border-radius: 2px;
  overflow: hidden;
  forced-color-adjust: none;
}
.tide > span {
  min-width: 5px;
}
.on {
  background: #7fc2bd;
}
.close {
  background: #e0ae55;
}
.past {
  background: repeating-linear-gradient(-45deg, #f0936f 0 3px, #0f3a43 3px 5px);
}
</style>
