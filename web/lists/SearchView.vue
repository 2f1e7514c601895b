<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'
import { search, SEARCH_TYPES } from '#contract/lists'
import type { SearchAnswer, SearchType } from '#contract/lists'
import { ORDER_STATE_NAMES } from '#core/orders'
import { PRIORITIES, PRIORITY_NAMES, REQUEST_STATE_NAMES } from '#core/requests'
import type { Priority } from '#core/requests'
import { named, MomentEntry, ListEntry, ChoiceEntry, TextEntry, call, ProblemNote, shortTime, useRead, useSoon, PickField, placeChoices } from '#web/kit'
import { addressForFound, TYPE_NAMES } from './found'

/** Words over everything there is, narrowed by what it is, whether it is open, where, how pressing, since when. */
const route = useRoute()
const router = useRouter()
const q = ref(String(route.query.q ?? ''))
const type = computed(() => (SEARCH_TYPES.includes(route.query.type as SearchType) ? (route.query.type as SearchType) : null))
const more = shallowRef<SearchAnswer[]>([])
const placeName = ref('')

const input = computed(() => {
  const { open, priority, place, from } = route.query as Record<string, string | undefined>
  return {
    q: String(route.query.q ?? ''),
    ...(type.value ? { type: type.value } : {}),
    ...(open === 'yes' || open === 'no' ? { open: open === 'yes' } : {}),
    ...(PRIORITIES.includes(priority as Priority) ? { priority: priority as Priority } : {}),
    ...(place && /^\d+$/.test(place) ? { placeId: Number(place) } : {}),
    ...(from && /^\d{4}-\d{2}-\d{2}$/.test(from) ? { from: `${from}T00:00:00Z` as unknown as Date } : {}),
  }
})
const found = useRead(search, () => (input.value.q.trim().length > 1 ? input.value : null), { holds: true })
watch(
  () => JSON.stringify(input.value),
  () => (more.value = []),
)
const set = (change: Record<string, string | undefined>) => void router.replace({ query: { ...route.query, ...change } })
watch(
  q,
  useSoon(() => set({ q: q.value || undefined }), 200),
)
watch(
  () => route.query.q,
  (now) => {
    if (now !== undefined && String(now) !== q.value && document.activeElement?.id !== 'search-words') q.value = String(now)
  },
)
onMounted(() => document.getElementById('search-words')?.focus())

const rows = computed(() => [found.value.value, ...more.value].flatMap((answer) => answer?.rows ?? []))
const next = computed(() => (more.value.at(-1) ?? found.value.value)?.next ?? null)
async function readOn(): Promise<void> {
  more.value = [...more.value, await call(search, { ...input.value, after: next.value! })]
}
const stateName = (state: string | null) => (state ? ({ ...ORDER_STATE_NAMES, ...REQUEST_STATE_NAMES } as Record<string, string>)[state] : '')
const OPEN = [
  { value: '', label: 'any' },
  { value: 'yes', label: 'open' },
  { value: 'no', label: 'over' },
]
const asked = (name: string) => (typeof route.query[name] === 'string' ? route.query[name] : '')

async function findPlace(text: string) {
  const choices = await placeChoices(text)
  const here = choices.find((one) => String(one.value) === route.query.place)
  if (here) placeName.value = here.label
  return choices
}
</script>

<template>
  <div class="page">
    <header>
      <h1>Search</h1>
      <TextEntry
        id="search-words"
        v-model="q"
        class="words"
        kind="search"
        :max="80"
        label-hidden
        label="Words, a number or an outside reference"
        placeholder="Words, a number, a reference of another system"
      />
    </header>
    <div class="narrow" role="group" aria-label="Narrow the search">
      <div class="types" role="group" aria-label="What it is">
        <NButton size="small" :aria-pressed="!type" :class="{ on: !type }" @click="set({ type: undefined })">Everything</NButton>
        <NButton v-for="one in SEARCH_TYPES" :key="one" size="small" :aria-pressed="type === one" :class="{ on: type === one }" @click="set({ type: one })">
          {{ TYPE_NAMES[one].many }}
        </NButton>
      </div>
      <ChoiceEntry id="search-open" label="State" :model-value="asked('open')" :options="OPEN" @update:model-value="set({ open: $event || undefined })" />
      <ListEntry
        id="search-priority"
        class="priority"
        label="Priority"
        clearable
        placeholder="any"
        :model-value="asked('priority') || null"
        :options="named(PRIORITIES, PRIORITY_NAMES)"
        @update:model-value="set({ priority: $event ?? undefined })"
      />
      <MomentEntry id="search-from" day label="Since" :model-value="asked('from')" @update:model-value="set({ from: $event || undefined })" />
      <PickField
        id="search-place"
        class="place"
        label="In place"
        placeholder="Anywhere"
        :value="input.placeId ?? null"
        :current="input.placeId ? { value: input.placeId, label: placeName || 'The chosen place' } : null"
        :find="findPlace"
        clearable
        @pick="set({ place: $event === null ? undefined : String($event) })"
      />
    </div>
    <ProblemNote v-if="found.problem.value" :problem="found.problem.value" @retry="found.load" />
    <p v-else-if="!found.value.value" class="empty">Write at least two letters. All the words have to be there, each as it begins, in any order.</p>
    <template v-else>
      <p v-if="found.value.value.instead" class="said" role="status">
        Nothing is written like that. Shown is what was found for <strong>{{ found.value.value.instead }}</strong>.
      </p>
      <p v-if="found.value.value.partial" class="said" role="status">
        These words are in very many records; only the newest were looked through. One more word helps.
      </p>
      <p v-if="!rows.length" class="empty">Nothing has all of “{{ input.q }}”. Fewer words, the beginning of one, or another kind or state may find it.</p>
      <ol v-else aria-label="Found">
        <li v-for="(row, index) in rows" :key="`${row.type}${row.id}-${index}`">
          <RouterLink :to="addressForFound(row)">
            <span class="type soft">{{ TYPE_NAMES[row.type].one }}</span>
            <span class="title" :class="{ mono: row.type !== 'person' }">{{ row.title }}</span>
            <span class="sub"
              >{{ row.subtitle }}<span v-if="row.snippet" class="soft snippet">{{ row.snippet }}</span></span
            >
            <span class="soft state">{{ stateName(row.state) }}</span>
            <span class="soft mono when">{{ row.at ? shortTime(row.at) : '' }}</span>
          </RouterLink>
        </li>
      </ol>
      <NButton v-if="next" @click="readOn">Show 20 more</NButton>
    </template>
  </div>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.words {
  flex: 1;
  max-width: 640px;
}
header {
  display: flex;
  gap: 16px;
  align-items: center;
}
header h1 {
  margin-right: 0;
}
.narrow {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  font-size: 13px;
  color: var(--ink-soft);
}
.types {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.small {
  min-height: 30px;
  padding: 0 9px;
  font-size: 13px;
}
.on {
  background: var(--shoal);
  border-color: var(--tide);
}
.place {
  flex-direction: row;
  align-items: center;
  gap: 6px;
  width: 230px;
  white-space: nowrap;
}
.place :deep(label) {
  font-size: 13px;
}
.said {
  padding: 8px 12px;
  border-left: 4px solid var(--tide);
  background: var(--shoal-faint);
  border-radius: 0 6px 6px 0;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  border-top: 1px solid var(--line);
}
a {
  display: grid;
  grid-template-columns: 96px 120px 1fr 110px 100px;
  gap: 12px;
  align-items: baseline;
  padding: 8px 10px;
  color: var(--ink);
  text-decoration: none;
  border-bottom: 1px solid var(--line);
}
a:hover {
  background: var(--shoal-faint);
}
.snippet {
  display: block;
  font-size: 13px;
}
.title {
  font-weight: 600;
  overflow-wrap: anywhere;
}
.when {
  text-align: right;
  font-size: 12px;
}
@media (max-width: 900px) {
  a {
    grid-template-columns: 1fr auto;
    gap: 2px 12px;
  }
  .sub {
    grid-column: 1 / -1;
  }
  .type {
    order: 2;
    text-align: right;
  }
  .sub {
    order: 3;
  }
  .state,
  .when {
    order: 4;
  }
}
</style>
