<script setup lang="ts">
import { computed, ref } from 'vue'
import { RouterLink, useRoute } from 'vue-router'
import { listReadiness, readReadiness } from '#contract/readiness'
import { READINESS, READINESS_NAMES } from '#core/readiness'
import type { Readiness } from '#core/readiness'
import { ChoiceEntry, LoadedPart, PhonePage, SaidLine, useRead, useSession } from '#web/kit'
import SpaceRow from './SpaceRow.vue'

/** How the spaces of a building stand, for who walks through it: floor by floor, said with one press. */
const route = useRoute()
const session = useSession()
const id = computed(() => Number(route.params.id) || null)
const touchedBy = ({ kind, register }: { kind: string; register?: string | null }) =>
  kind === 'space.readiness' || kind.startsWith('closure.') || register === 'places'
const all = useRead(listReadiness, {}, { touchedBy })
const board = useRead(readReadiness, () => (id.value ? { id: id.value } : null), { touchedBy })
type Shown = 'all' | Readiness | 'unsaid'
const shown = ref<Shown>('all')
const SHOWN: { value: Shown; label: string }[] = [
  { value: 'all', label: 'All' },
  { value: 'needs_cleaning', label: READINESS_NAMES.needs_cleaning },
  { value: 'out_of_use', label: READINESS_NAMES.out_of_use },
  { value: 'ready', label: READINESS_NAMES.ready },
]
const floors = computed(() =>
  (board.value.value?.floors ?? [])
    .map((floor) => ({ ...floor, spaces: floor.spaces.filter(({ state }) => shown.value === 'all' || state === shown.value) }))
    .filter(({ spaces }) => spaces.length),
)
</script>

<template>
  <PhonePage>
    <header class="top">
      <h1>{{ id ? (board.value.value?.building.name ?? 'Readiness') : 'Readiness' }}</h1>
      <RouterLink v-if="id" to="/readiness">Buildings</RouterLink>
      <RouterLink v-if="session.can('desk.read')" to="/desk">Desk</RouterLink>
      <RouterLink v-if="session.can('field.work')" to="/rounds">Rounds</RouterLink>
    </header>
    <main>
      <LoadedPart v-if="!id" :part="all">
        <p v-if="!all.value.value!.rows.length" class="soft">There are no spaces yet. They are entered under Registers, Places.</p>
        <ul class="buildings" aria-label="Buildings">
          <li v-for="row in all.value.value!.rows" :key="row.id">
            <RouterLink class="card building" :to="`/readiness/${row.id}`">
              <strong>{{ row.name }}</strong> <span class="mono soft">{{ row.code }}</span>
              <span class="counts">
                <span v-for="state in READINESS" :key="state"
                  ><span class="mono">{{ row.counts[state] }}</span> {{ READINESS_NAMES[state].toLowerCase() }}</span
                >
                <span v-if="row.counts.unsaid" class="soft"
                  ><span class="mono">{{ row.counts.unsaid }}</span> not said</span
                >
              </span>
            </RouterLink>
          </li>
        </ul>
      </LoadedPart>
      <LoadedPart v-else :part="board">
        <ChoiceEntry id="readiness-shown" v-model="shown" label-hidden label="Which" :options="SHOWN" />
        <section v-for="floor in floors" :key="floor.id" :aria-label="floor.name">
          <h2>{{ floor.name }}</h2>
          <ul class="spaces">
            <SpaceRow v-for="space in floor.spaces" :key="space.id" :space="space" @said="board.load" />
          </ul>
        </section>
        <p v-if="!floors.length" class="soft">No space of this building stands so.</p>
      </LoadedPart>
    </main>
    <SaidLine />
  </PhonePage>
</template>

<style scoped>
.top {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 12px;
}
.top h1 {
  margin-right: auto;
}
.buildings,
.spaces {
  margin: 0;
  padding: 0;
  list-style: none;
  display: grid;
  gap: 10px;
}
.building {
  display: block;
  text-decoration: none;
  color: var(--ink);
}
.counts {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  margin-top: 4px;
}
section {
  display: grid;
  gap: 8px;
}
</style>
