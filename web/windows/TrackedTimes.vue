<script setup lang="ts">
import { defineAsyncComponent } from 'vue'
import { listTrackedTimes } from '#contract/windows'
import { call, useLoading } from '#web/kit'

/** Times offered to the reporter, on their private page; nothing is said where there are none. */
const TimesChoice = defineAsyncComponent(() => import('./TimesChoice.vue'))
const props = defineProps<{ token: string }>()
const offers = useLoading(() => call(listTrackedTimes, { token: props.token }))
void offers.load()
</script>

<template>
  <TimesChoice v-for="offer in offers.value.value?.rows ?? []" :key="offer.token" :token="offer.token" />
</template>
