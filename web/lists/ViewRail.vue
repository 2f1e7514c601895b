<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed } from 'vue'
import { RouterLink } from 'vue-router'
import { chooseUsualView, dropView } from '#contract/lists'
import type { ViewRow } from '#contract/lists'
import { isRegister, LIST_NAMES, WORK_LISTS } from '#core/lists'
import type { ListKind } from '#core/lists'
import { call, CallProblem, useUndo } from '#web/kit'
import { addressOf, baseOf, useViews } from './useViews'

/** The views one can open: those that ship, one’s own, those shared. */
const props = defineProps<{ here: string | null; kind: ListKind }>()
const store = useViews()
const said = useUndo()
/** Of a register its own views; of work those of orders and of requests. */
const kinds = computed<readonly ListKind[]>(() => (isRegister(props.kind) ? [props.kind] : WORK_LISTS))
const groups = computed(() => {
  const all = (store.views?.rows ?? []).filter((view) => kinds.value.includes(view.kind))
  const shipped = (kind: ListKind) => all.filter((view) => view.id === null && view.kind === kind)
  return [
    { name: 'Yours', rows: all.filter((view) => view.mine) },
    { name: 'Shared with you', rows: all.filter((view) => view.id !== null && !view.mine) },
    ...kinds.value.map((kind) => ({ name: LIST_NAMES[kind], rows: shipped(kind) })),
  ].filter((group) => group.rows.length)
})
const open = computed(() => store.views?.rows.find((view) => view.key === props.here) ?? null)

async function makeUsual(view: ViewRow): Promise<void> {
  store.take(await call(chooseUsualView, { key: view.key }))
  said.say(`Lists open with “${view.name}” from now on.`)
}
async function drop(view: ViewRow): Promise<void> {
  try {
    store.take(await call(dropView, { id: view.id! }))
    said.say(`The view “${view.name}” is gone; the list itself stays as it is.`)
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    said.say(error.message, undefined, true)
  }
}
const shared = (view: ViewRow) => (view.sharedWith === 'team' ? (view.team ?? 'team') : view.sharedWith === 'all' ? 'everybody' : '')
</script>

<template>
  <nav class="rail" aria-label="Views">
    <section v-if="isRegister(kind)">
      <ul>
        <li>
          <RouterLink :to="baseOf(kind)" :class="{ here: !here }" :aria-current="here ? undefined : 'page'">All in use</RouterLink>
        </li>
        <li><RouterLink :to="`${baseOf(kind)}?retired=yes`">Retired</RouterLink></li>
      </ul>
    </section>
    <section v-for="group in groups" :key="group.name">
      <h2>{{ group.name }}</h2>
      <ul>
        <li v-for="view in group.rows" :key="view.key">
          <RouterLink :to="addressOf(view)" :class="{ here: view.key === here }" :aria-current="view.key === here ? 'page' : undefined"
            >{{ view.name }}<span v-if="store.views?.usual === view.key" class="usual" title="Lists open with this view">usual</span></RouterLink
          >
          <span v-if="view.id !== null && (view.owner || shared(view))" class="soft note">{{
            view.mine ? (shared(view) ? `for ${shared(view)}` : 'for you alone') : `by ${view.owner}`
          }}</span>
        </li>
      </ul>
    </section>
    <div v-if="open" class="acts">
      <NButton v-if="!isRegister(kind) && store.views?.usual !== open.key" text type="primary" class="link" @click="makeUsual(open)"
        >Open lists with this view</NButton
      >
      <NButton v-if="open.mine" text type="primary" class="link" @click="drop(open)">Drop this view</NButton>
    </div>
  </nav>
</template>

<style scoped>
.rail {
  overflow: auto;
  padding: 12px 10px;
  background: var(--paper);
  border-right: 1px solid var(--line);
  font-size: 13px;
  display: grid;
  gap: 14px;
  align-content: start;
}
h2 {
  font-size: 12px;
  color: var(--ink-soft);
  font-weight: 400;
  padding: 0 8px 2px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
a {
  display: flex;
  justify-content: space-between;
  gap: 6px;
  color: var(--ink);
  text-decoration: none;
  padding: 4px 8px;
  border-left: 3px solid transparent;
  border-radius: 0 6px 6px 0;
}
a:hover {
  background: var(--shoal-faint);
}
a.here {
  background: var(--shoal);
  border-left-color: var(--tide);
  font-weight: 600;
}
.usual {
  font-size: 11px;
  font-weight: 400;
  color: var(--ink-soft);
}
a.here .usual {
  color: var(--ink);
}
.note {
  display: block;
  padding: 0 8px 4px 11px;
  font-size: 12px;
}
.acts {
  display: grid;
  gap: 6px;
  padding: 8px;
  border-top: 1px solid var(--line);
}
</style>
