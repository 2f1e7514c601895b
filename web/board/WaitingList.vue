<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { RouterLink } from 'vue-router'
import type { WaitingOrder } from '#contract/board'
import { HOLD_REASON_NAMES } from '#core/orders'
import { ListEntry, PriorityBar, RowButton, spanTime, TargetGauge, TextEntry } from '#web/kit'
import type { Holding } from './holding'

/** Work that nobody is planned for, the nearest target first, each with what stands between it and dispatch. */
const props = defineProps<{ rows: WaitingOrder[]; holding: Holding; keyed: (event: KeyboardEvent) => boolean }>()
const emit = defineEmits<{ order: [WaitingOrder] }>()
const words = ref('')
const trade = ref<string | null>(null)
const trades = computed(() => [...new Set(props.rows.flatMap((row) => row.trade ?? []))].sort().map((value) => ({ value, label: value })))
const shown = computed(() => {
  const wanted = words.value.trim().toLowerCase()
  return props.rows.filter(
    (row) =>
      (!trade.value || row.trade === trade.value) &&
      (!wanted || `${row.number} ${row.summary} ${row.placeCode ?? ''} ${row.trade ?? ''}`.toLowerCase().includes(wanted)),
  )
})
const list = ref<HTMLElement | null>(null)
/** What was picked up by key, and where it stood: once it has left the list, the keyboard goes on with what took its place. */
let picked: { id: number; at: number } | null = null
watch(
  () => props.rows,
  (rows) => {
    if (!picked || rows.some(({ id }) => id === picked!.id)) return
    const next = shown.value[Math.min(picked.at, shown.value.length - 1)]
    picked = null
    if (document.activeElement !== document.body) return
    // Not in the field: there the key that takes it back would be a letter.
    if (next) list.value?.querySelector<HTMLElement>(`[data-order="${next.id}"] button`)?.focus()
    else list.value?.focus({ preventScroll: true })
  },
  { flush: 'post' },
)
/** Space picks one up; what is held is then moved over the Board by the same keys as a visit. */
function pressed(event: KeyboardEvent, row: WaitingOrder): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  if (props.holding.held.value) {
    if (!props.keyed(event)) return
  } else if (event.key === ' ') {
    picked = { id: row.id, at: shown.value.indexOf(row) }
    props.holding.takeOrder(row)
  } else return
  event.preventDefault()
  event.stopPropagation()
}
const focusFirst = () => list.value?.querySelector<HTMLElement>('[data-order] button')?.focus()
const station = ({ state }: WaitingOrder) => (state === 'on_hold' ? 'planning' : 'dispatch')
</script>

<template>
  <section ref="list" class="waiting" tabindex="-1" aria-label="Nobody is planned">
    <h2>
      Nobody is planned <span class="mono soft">{{ rows.length }}</span>
    </h2>
    <ListEntry v-if="trades.length > 1" id="waiting-trade" v-model="trade" label="Trade" label-hidden placeholder="Every trade" :options="trades" clearable />
    <TextEntry
      id="waiting-words"
      v-model="words"
      label="Find"
      label-hidden
      placeholder="Number, words, place or trade (F)"
      @keydown.down.prevent="focusFirst"
    />
    <ul>
      <li v-for="row in shown" :key="row.id" class="waits" :class="{ lifted: holding.held.value?.order?.id === row.id }" :data-order="row.id">
        <RowButton class="plain name" aria-keyshortcuts="Space" @click="holding.held.value || emit('order', row)" @keydown="pressed($event, row)"
          ><span class="mono">{{ row.number }}</span> {{ row.summary }}</RowButton
        >
        <p class="facts">
          <PriorityBar v-if="row.priority" :priority="row.priority" /> <TargetGauge :target="row.target" />
          <span v-if="row.placeCode" class="mono soft">{{ row.placeCode }}</span>
        </p>
        <p class="facts soft">
          {{ row.trade }} {{ row.minutes }} min{{ row.people > 1 ? ` for ${row.people}` : '' }}
          <RouterLink :to="`/desk/${station(row)}/order/${row.id}`" :aria-label="`Open the Sheet of ${row.number}`">Sheet</RouterLink>
        </p>
        <p v-if="row.window" class="soft">Agreed for {{ spanTime(row.window.from, row.window.until) }}</p>
        <ul v-if="row.ready.length || row.state === 'on_hold'" class="between" :aria-label="`Between ${row.number} and dispatch`">
          <li v-if="row.state === 'on_hold'">On hold{{ row.holdReason ? `: ${HOLD_REASON_NAMES[row.holdReason].toLowerCase()}` : '' }}.</li>
          <li v-for="line in row.ready" :key="line.sentence">{{ line.sentence }}</li>
        </ul>
        <p v-else class="soft">Nothing stands between it and dispatch.</p>
      </li>
    </ul>
    <p v-if="!rows.length" class="soft">Everything that is approved has somebody planned for it.</p>
    <p v-else-if="!shown.length" class="soft">Nothing fits these words.</p>
  </section>
</template>

<style scoped>
.waiting {
  display: grid;
  gap: 8px;
  min-width: 0;
}
h2 {
  font-size: 15px;
  margin: 0;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.waiting > ul > li {
  padding: 10px 0;
  border-bottom: 1px solid var(--line);
  display: grid;
  gap: 4px;
}
.name {
  font-weight: 600;
  overflow-wrap: anywhere;
}
.waits {
  cursor: grab;
  /* By finger the list is scrolled up and down, and a row drawn aside. */
  touch-action: pan-y;
}
.waits.lifted {
  background: var(--shoal-faint);
}
.waiting p {
  margin: 0;
}
.facts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
}
.between {
  padding-left: 12px;
  border-left: 3px solid var(--sand);
  font-size: 13px;
}
</style>
