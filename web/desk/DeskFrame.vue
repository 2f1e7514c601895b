<script setup lang="ts">
import {
  BookOpen,
  CalendarClock,
  CalendarRange,
  ChartNoAxesColumn,
  Coins,
  Megaphone,
  Package,
  PhoneIncoming,
  Rows3,
  Search,
  Settings,
  Store,
} from '@lucide/vue'
import { computed, defineAsyncComponent, onMounted, onUnmounted, ref } from 'vue'
import { RouterLink, RouterView, useRoute, useRouter } from 'vue-router'
import { readFlow } from '#contract/insight'
import { STATION_NAMES, STATIONS } from '#core/orders'
import {
  RowButton,
  Burst,
  offerActs,
  theme,
  TideBar,
  toggleTheme,
  useActs,
  useKeys,
  usePortrait,
  useLive,
  useRead,
  useSession,
  SaidLine,
  useUndo,
} from '#web/kit'
import type { Act } from '#web/kit'
import { PortraitDrawer } from '#web/portraits'
import CallForm from './CallForm.vue'
import PersonMenu from './PersonMenu.vue'

/** Not needed for the first view; the palette is there as soon as that stands, so that nothing typed is lost. */
const loadPalette = () => import('./CommandPalette.vue')
const CommandPalette = defineAsyncComponent(loadPalette)
const KeysHelp = defineAsyncComponent(() => import('./KeysHelp.vue'))
onMounted(() => void loadPalette())
const session = useSession()
const live = useLive()
live.open()
const undo = useUndo()
const acts = useActs()
const portrait = usePortrait()
const route = useRoute()
const router = useRouter()
const open = ref<'palette' | 'call' | 'keys' | null>(null)

/** Whoever goes back in the browser leaves what was looked for; a page that moves on by itself takes no words from it. */
const wentBack = () => {
  if (open.value !== 'call') open.value = null
}
onMounted(() => window.addEventListener('popstate', wentBack))
onUnmounted(() => window.removeEventListener('popstate', wentBack))

const flow = useRead(readFlow, {}, { touchedBy: () => true, every: 60_000 })

const station = computed(() => (route.name === 'bench' ? (route.params.station as string) : null))
const countOf = (name: string) => flow.value.value?.stations.find((one) => one.station === name) ?? null
const goTo = (name: string) => router.push({ name: 'bench', params: { station: name } })

const rooms = computed(() => [
  { to: '/board', name: 'Board', icon: CalendarRange, shown: session.can('desk.read') },
  { to: '/lists', name: 'Lists', icon: Rows3, shown: session.can('desk.read') },
  { to: '/registers', name: 'Registers', icon: BookOpen, shown: session.can('desk.read') },
  { to: '/preventive', name: 'Preventive', icon: CalendarClock, shown: session.can('desk.read') },
  { to: '/stock', name: 'Stock', icon: Package, shown: session.can('desk.read') },
  { to: '/ledger', name: 'Ledger', icon: Coins, shown: session.can('ledger.read') },
  { to: '/insight', name: 'Insight', icon: ChartNoAxesColumn, shown: session.can('insight.read') },
  { to: '/help-pages', name: 'Notices', icon: Megaphone, shown: session.can('desk.read') },
  { to: '/setup', name: 'Setup', icon: Settings, shown: session.can('setup.edit') },
])
const counter = computed(() => `/c/${session.self?.site.code ?? ''}`)

async function leave(): Promise<void> {
  await session.leave()
  live.close()
  await router.push({ name: 'signIn' })
}

offerActs(() => [
  ...STATIONS.map((name, index) => ({ label: `Go to ${STATION_NAMES[name]}`, key: String(index + 1), run: () => goTo(name) })),
  ...(session.can('requests.triage') ? [{ label: 'New call', key: 'n', run: () => (open.value = 'call') }] : []),
  { label: 'Go to Lists', key: '0', run: () => router.push('/lists') },
  ...(session.can('registers.edit') ? [{ label: 'Open COBie', run: () => router.push('/cobie') }] : []),
  { label: 'Open Documents', run: () => router.push('/documents') },
  { label: 'Open Findings', run: () => router.push('/findings') },
  { label: 'Open Floor plans', run: () => router.push('/floorplans') },
  { label: 'Open My steps', run: () => router.push('/my-steps') },
  ...(session.can('spaces.say') ? [{ label: 'Open Readiness of spaces', run: () => router.push('/readiness') }] : []),
  { label: 'Open Templates: make many orders', run: () => router.push('/templates') },
  { label: 'Open Equipment', run: () => router.push('/stock/equipment') },
  { label: 'Open Purchases', run: () => router.push('/stock/purchases') },
  { label: 'Open Transfers', run: () => router.push('/transfers') },
  { label: 'Search everything', run: () => router.push('/search') },
  { label: 'Undo the last act', key: 'u', run: () => undo.undoLast() },
  { label: 'Show the keys of this screen', key: '?', run: () => (open.value = 'keys') },
  ...rooms.value.filter((room) => room.shown).map((room) => ({ label: `Open ${room.name}`, run: () => router.push(room.to) })),
  { label: theme.value === 'light' ? 'Use dark colours' : 'Use light colours', run: toggleTheme },
  { label: 'Open notices and help', run: () => router.push('/help-pages') },
  ...(session.can('requests.triage') ? [{ label: 'Open mail that made no request', run: () => router.push('/kept-mail') }] : []),
  { label: 'Read the API', run: () => router.push('/api-reference') },
  { label: 'Sign out', run: leave },
])

useKeys((key, event) => {
  if (key === '/' || (event.ctrlKey && key.toLowerCase() === 'k')) {
    open.value = 'palette'
    return true
  }
  const act = acts.all().find((one) => one.key && one.key === (key.length === 1 ? key.toLowerCase() : key))
  if (!act) return false
  if (/^[a-z]$/.test(act.key!)) {
    if (!event.repeat) keys.press(event.timeStamp, () => runKey(act, event.timeStamp), !!act.changes)
  } else runKey(act, event.timeStamp)
  return true
})

const keys = new Burst()
onUnmounted(() => keys.stop())
/** What a key does; a button out of sight is first brought where its person sees what would happen. */
function runKey(act: Act, at: number): void {
  if (act.whyNot) {
    keys.puzzle(at)
    return undo.say(act.whyNot, undefined, true)
  }
  const button = act.sight ? document.querySelector<HTMLElement>(act.sight) : null
  if (button && !inSight(button)) {
    button.scrollIntoView({ block: 'center' })
    return undo.say(`“${act.label}” is shown now; press ${act.key!.toUpperCase()} once more.`)
  }
  void act.run()
}
function inSight(element: HTMLElement): boolean {
  const { left, top, width, height } = element.getBoundingClientRect()
  const found = document.elementFromPoint(left + width / 2, top + height / 2)
  return found !== null && (element.contains(found) || found.contains(element))
}
</script>

<template>
  <div class="frame">
    <header class="flow">
      <RouterLink to="/" class="wordmark">Evrix</RouterLink>
      <nav class="stations" aria-label="The Flow">
        <RouterLink
          v-for="(name, index) in STATIONS"
          :key="name"
          :to="{ name: 'bench', params: { station: name } }"
          class="station"
          :class="{ here: station === name }"
          :aria-current="station === name ? 'page' : undefined"
        >
          <span class="name"
            ><span class="label">{{ STATION_NAMES[name] }}</span
            ><span class="count mono">{{ countOf(name)?.count ?? '·' }}</span></span
          >
          <TideBar v-if="countOf(name)" :station="countOf(name)!" />
          <span class="hidden">key {{ index + 1 }}, {{ countOf(name)?.past ?? 0 }} past target, {{ countOf(name)?.close ?? 0 }} close</span>
        </RouterLink>
      </nav>
      <div class="tools">
        <RowButton class="tool" aria-label="Search and palette" title="Search and palette: Ctrl K" @click="open = 'palette'">
          <Search :size="18" />
        </RowButton>
        <RowButton v-if="session.can('requests.triage')" class="tool call" title="New call: N" @click="open = 'call'">
          <PhoneIncoming :size="16" /><span>New call</span>
        </RowButton>
        <span class="line" :class="{ off: !live.connected }" role="status" :title="live.connected ? 'Changes arrive by themselves' : 'Reconnecting'"
          ><span class="dot" />{{ live.connected ? 'Live' : 'Offline' }}</span
        >
        <PersonMenu @leave="leave" />
      </div>
    </header>
    <div class="below">
      <nav class="spine" aria-label="Rooms">
        <RouterLink v-for="room in rooms.filter((one) => one.shown)" :key="room.to" :to="room.to" class="room" :class="{ here: route.path.startsWith(room.to) }"
          ><component :is="room.icon" :size="18" /><span>{{ room.name }}</span></RouterLink
        >
        <a :href="counter" target="_blank" class="room last"><Store :size="18" /><span>Counter</span></a>
      </nav>
      <main class="room-view"><RouterView /></main>
    </div>
    <SaidLine keys />
    <PortraitDrawer v-if="portrait.shown" />
    <CommandPalette v-if="open === 'palette'" @close="open = null" />
    <CallForm v-if="open === 'call'" @close="open = null" />
    <KeysHelp v-if="open === 'keys'" @close="open = null" />
  </div>
</template>

<style scoped>
.frame {
  height: 100%;
  display: flex;
  flex-direction: column;
}
.flow {
  flex: none;
  height: 64px;
  display: flex;
  align-items: stretch;
  background: var(--deep);
  color: var(--on-deep);
}
.wordmark {
  width: 52px;
  display: grid;
  place-items: center;
  font-weight: 700;
  letter-spacing: 0.02em;
  color: var(--on-deep);
  text-decoration: none;
  font-size: 15px;
  padding-left: 6px;
}
.stations {
  flex: 1;
  display: grid;
  grid-template-columns: repeat(7, minmax(0, 1fr));
  margin-left: 12px;
  overflow: hidden;
}
.station {
  /* What is hidden in it for listeners stays in it, and never widens the page it scrolls in. */
  position: relative;
  display: flex;
  flex-direction: column;
  justify-content: center;
  gap: 7px;
  padding: 0 10px;
  color: var(--on-deep-soft);
  text-decoration: none;
  border-bottom: 3px solid transparent;
  border-top: 3px solid transparent;
  min-width: 0;
}
.station:hover {
  color: var(--on-deep);
}
.station.here {
  color: #fff;
  background: rgb(255 255 255 / 9%);
  border-bottom-color: #7fc2bd;
}
.name {
  display: flex;
  justify-content: space-between;
  gap: 6px;
  align-items: baseline;
}
.label {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.count {
  color: #fff;
  font-size: 16px;
}
.tools {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 0 12px;
}
.tool {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  height: 34px;
  padding: 0 10px;
  background: rgb(255 255 255 / 10%);
  border: 1px solid rgb(255 255 255 / 28%);
  border-radius: 6px;
  color: var(--on-deep);
  cursor: pointer;
  white-space: nowrap;
}
.tool:hover {
  background: rgb(255 255 255 / 20%);
}
.line {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  font-size: 12px;
  color: var(--on-deep-soft);
}
.dot {
  width: 8px;
  height: 8px;
  border-radius: 50%;
  background: #7fc2bd;
}
.off .dot {
  background: none;
  border: 2px solid #f0936f;
}
.below {
  flex: 1;
  min-height: 0;
  display: flex;
}
.spine {
  flex: none;
  width: 64px;
  display: flex;
  flex-direction: column;
  background: var(--paper);
  border-right: 1px solid var(--line);
}
.room {
  display: grid;
  justify-items: center;
  gap: 3px;
  padding: 10px 0;
  font-size: 11px;
  color: var(--ink-soft);
  text-decoration: none;
  border-left: 3px solid transparent;
}
.room:hover {
  color: var(--ink);
  background: var(--shoal-faint);
}
.room.here {
  color: var(--ink);
  border-left-color: var(--tide);
  background: var(--shoal-faint);
}
.last {
  margin-top: auto;
}
.room-view {
  flex: 1;
  min-width: 0;
  min-height: 0;
}
:focus-visible {
  outline-color: #9fe0da;
}
.room-view :focus-visible,
.spine :focus-visible {
  outline-color: var(--tide);
}
@media (max-width: 900px) {
  .flow {
    height: auto;
    flex-wrap: wrap;
  }
  .stations {
    order: 3;
    flex: 1 0 100%;
    min-width: 0;
    max-width: 100%;
    grid-template-columns: repeat(7, 92px);
    overflow-x: auto;
    margin: 0;
  }
  .station {
    height: 48px;
  }
  .tools {
    flex: 1;
    justify-content: flex-end;
    height: 48px;
  }
  .call span {
    display: none;
  }
  .spine {
    display: none;
  }
}
/* Forced colours show borders that are not seen otherwise: only where one is keeps its own. */
@media (forced-colors: active) {
  .station:not(.here) {
    border-bottom-color: Canvas;
  }
  .rooms a:not([aria-current='page']),
  .spine a:not([aria-current='page']) {
    border-left-color: Canvas;
  }
}
</style>
