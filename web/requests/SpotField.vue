<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref, watch } from 'vue'
import { findCounterSpots } from '#contract/requests'
import type { CounterSpot } from '#contract/requests'
import { CounterFromPlan } from '#web/floorplans'
import { RowButton, TextEntry, call, useSoon } from '#web/kit'

/** Where it is: by part of a code, name or tag, or one of those used before. Never a list of everything. */
const props = defineProps<{ site: string; recent: CounterSpot[]; problem?: string; needed: boolean; withAssets: boolean }>()
const spot = defineModel<CounterSpot | null>({ required: true })
const emit = defineEmits<{ chosen: [] }>()
const text = ref('')
const found = ref<CounterSpot[]>([])
const looked = ref('')

const look = useSoon(async () => {
  const q = text.value.trim()
  const near = props.recent[0]?.placeId
  const rows = q ? (await call(findCounterSpots, { site: props.site, q, near }).catch(() => ({ rows: [] }))).rows : []
  if (q !== text.value.trim()) return
  found.value = rows.filter((row) => props.withAssets || row.assetId === null)
  looked.value = q
}, 150)
watch(text, look)

/** The line the arrow keys are at; Enter takes it. */
const at = ref(-1)
const same = (a: CounterSpot | undefined, b: CounterSpot | undefined) => a?.placeId === b?.placeId && a?.assetId === b?.assetId
// A newer answer keeps the line one is at, when it is still there.
watch(found, (now, before) => (at.value = at.value < 0 ? -1 : now.findIndex((row) => same(row, before[at.value]))))
const idOf = (index: number) => `spot-${index}`
function keys(event: KeyboardEvent): void {
  if (!found.value.length) return
  if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
    event.preventDefault()
    const step = event.key === 'ArrowDown' ? 1 : -1
    at.value = (at.value + step + found.value.length + (at.value < 0 && step < 0 ? 1 : 0)) % found.value.length
    document.getElementById(idOf(at.value))?.scrollIntoView({ block: 'nearest' })
  } else if (event.key === 'Enter') {
    event.preventDefault()
    // The only one there is needs no arrow.
    const row = found.value[found.value.length === 1 ? 0 : at.value]
    if (row) choose(row)
  } else if (event.key === 'Escape') found.value = []
}

function choose(row: CounterSpot): void {
  spot.value = row
  text.value = ''
  found.value = []
  emit('chosen')
}
</script>

<template>
  <div v-if="spot" class="picked">
    <p>
      <strong>{{ spot.name }}</strong> <span class="mono label">{{ spot.code }}</span>
    </p>
    <p class="label">{{ spot.within }}</p>
    <NButton @click="spot = null">Choose another place</NButton>
  </div>
  <div v-else class="field">
    <TextEntry
      id="place"
      v-model="text"
      kind="search"
      autocomplete="off"
      role="combobox"
      aria-controls="found"
      aria-autocomplete="list"
      :label="`Part of a name, a room number${withAssets ? ', or the tag on the machine' : ''}${needed ? ' (needed)' : ''}`"
      :aria-activedescendant="at >= 0 ? idOf(at) : undefined"
      :aria-expanded="found.length > 0"
      @keydown="keys"
    />
    <ul v-if="found.length" id="found" class="found" role="listbox" aria-label="Places found">
      <li v-for="(row, index) in found" :key="`${row.placeId} ${row.assetId}`" role="presentation">
        <RowButton :id="idOf(index)" class="plain" :class="{ at: index === at }" role="option" tabindex="-1" :aria-selected="index === at" @click="choose(row)">
          <strong>{{ row.name }}</strong> <span class="mono label">{{ row.code }}</span><br /><span class="label">{{ row.within }}</span>
        </RowButton>
      </li>
    </ul>
    <p v-else-if="text.trim().length > 1 && looked === text.trim()" class="label">Nothing found. Try the building’s name or the code on the door.</p>
    <template v-else-if="!text && recent.length">
      <p class="label">Used before on this device</p>
      <ul class="found" aria-label="Places used before">
        <li v-for="row in recent" :key="row.code">
          <RowButton class="plain" @click="choose(row)">
            <strong>{{ row.name }}</strong> <span class="mono label">{{ row.code }}</span>
          </RowButton>
        </li>
      </ul>
    </template>
    <CounterFromPlan :site="site" :with-assets="withAssets" @pick="choose" />
  </div>
  <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
</template>

<style scoped>
.at {
  background: var(--shoal);
  outline: 2px solid var(--tide);
}
.picked {
  display: grid;
  gap: 4px;
  justify-items: start;
}
</style>
