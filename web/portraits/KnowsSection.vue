<script setup lang="ts">
import { counted } from '#core/kit'
import { dayOf } from '#web/kit'
import { usePortraitWork } from './work'

/** Who was there within a year, and so knows it best. */
const read = usePortraitWork()
</script>

<template>
  <span v-if="!read.value.value" class="bones" role="status" aria-label="Loading" />
  <p v-else-if="!read.value.value.knows.length" class="soft">Nobody was sent to it within a year.</p>
  <ul v-else class="knows">
    <li v-for="one in read.value.value.knows" :key="one.who">
      {{ one.who }} <span class="soft">{{ counted(one.visits, 'visit') }} in a year, last {{ dayOf(one.lastAt) }}</span>
    </li>
  </ul>
</template>

<style scoped>
.knows {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 2px;
}
</style>
