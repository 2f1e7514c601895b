<script setup lang="ts">
import { computed, ref } from 'vue'
import { RowButton, TextEntry } from '#web/kit'
import { spotsLike, spotSays } from './found'
import type { Spot } from './found'

/** Where it is, by part of a code, a name or the tag on a machine: among what is around the job. */
const props = defineProps<{ id: string; spots: readonly Spot[] }>()
const emit = defineEmits<{ pick: [spot: Spot] }>()
const MOST = 8
const text = ref('')
const found = computed(() => spotsLike(props.spots, text.value, MOST))
/** The only one there is needs no press. */
const enter = () => found.value[0] && emit('pick', found.value[0])
</script>

<template>
  <TextEntry :id="props.id" v-model="text" kind="search" autocomplete="off" label="Part of a name, a room number, or a tag" @keydown.enter.prevent="enter" />
  <ul v-if="found.length" class="found" aria-label="Places found">
    <li v-for="spot in found" :key="`${spot.placeId} ${spot.assetId}`">
      <RowButton class="plain" :aria-label="spotSays(spot)" @click="emit('pick', spot)"
        ><strong>{{ spot.name }}</strong> <span class="mono label">{{ spot.code }}</span></RowButton
      >
    </li>
  </ul>
  <p v-else-if="text.trim().length > 1" class="label" role="status">Nothing in this building is called that. Say where it is in your words.</p>
</template>
