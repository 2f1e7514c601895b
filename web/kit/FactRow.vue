<script setup lang="ts">
import { nextTick, onMounted, ref, watch } from 'vue'
import { useFresh } from './fresh'
import FreshMark from './FreshMark.vue'
import type { RecordRef } from './portrait'
import RecordLink from './RecordLink.vue'
import RowButton from './RowButton.vue'

/**
 * One fact of a Sheet: text to be read. Pressed, it turns into its field (the slot); Enter keeps what was typed there and
 * Esc leaves it, both back on the fact; Tab goes on to the next. What may not be changed says why when pressed.
 */
const props = defineProps<{
  name: string
  label: string
  /** What it says; nothing where nothing is known. */
  says: string | null
  /** Why it cannot be changed now. */
  whyNot?: string
  problem?: string
  /** Other fields that are set in it as well. */
  also?: string
  /** It takes the width of the Sheet. */
  wide?: boolean
  mono?: boolean
  /** Something is typed in it already and was not kept. */
  begun?: boolean
  /** The record it names, where that has a page of its own. */
  leads?: RecordRef | null
  /** The address of the web it is. */
  href?: string | null
}>()
const fresh = useFresh(() => props.name)
const root = ref<HTMLElement | null>(null)
const opened = ref(false)
/** Once opened the field stays, out of sight: what Esc took out of it can be had again. */
const made = ref(false)
const told = ref(false)

function press(): void {
  if (props.whyNot) return void (told.value = !told.value)
  fresh.seen()
  void open()
}
async function open(): Promise<void> {
  opened.value = made.value = true
  await nextTick()
  root.value?.querySelector<HTMLElement>('.fact-field table [tabindex="0"], .fact-field :is(input, textarea, button):not([tabindex="-1"])')?.focus()
}
/** What could not be taken stays open beside its sentence. */
const isRefused = () => !!props.problem || !!root.value?.querySelector('.fact-field :is(.problem, [aria-invalid="true"])')
async function close(anyway = false): Promise<void> {
  await nextTick()
  if (!opened.value || (!anyway && isRefused())) return
  opened.value = false
  await nextTick()
  root.value?.querySelector<HTMLElement>('.fact-value')?.focus({ preventScroll: true })
}
async function left(event: FocusEvent): Promise<void> {
  // To another window and back is no leaving.
  if (!(event.relatedTarget instanceof Node) || root.value?.contains(event.relatedTarget)) return
  await nextTick()
  if (!isRefused()) opened.value = false
}
/** Refused after it was left: it opens again, with what was typed. */
watch(
  () => props.problem,
  (now) => now && made.value && (opened.value = true),
)
function keys(event: KeyboardEvent): void {
  if (!opened.value || !(event.target instanceof HTMLElement)) return
  if (event.key === 'Escape') {
    event.stopPropagation()
    void close(true)
  }
  // A list keeps by choosing, long text with Ctrl Enter, and what can be pressed is pressed.
  const typed = event.target.matches('input:not(.n-base-selection input), textarea')
  if (event.key === 'Enter' && typed && (event.target.tagName !== 'TEXTAREA' || event.ctrlKey)) {
    // The same key would press the fact that has the keyboard then.
    event.preventDefault()
    void close()
  }
}
onMounted(() => props.begun && !props.whyNot && (opened.value = made.value = true))
defineExpose({ open, close })
</script>

<template>
  <div ref="root" class="fact" :class="{ wide, opened }" :data-field="also ? `${name} ${also}` : name" @focusout="left" @keydown="keys">
    <dt v-show="!opened">{{ label }}<FreshMark :by="fresh.by.value" /></dt>
    <dd>
      <RowButton
        v-show="!opened"
        class="plain fact-value"
        :class="{ mono, nothing: !says, fixed: whyNot }"
        :aria-label="`${label}: ${says || 'nothing'}`"
        :aria-expanded="whyNot ? told : undefined"
        @click="press"
        ><slot name="says">{{ says || '–' }}</slot></RowButton
      >
      <RecordLink v-if="leads && says && !opened" class="leads" :record="leads" :label="`open ${says}`">open</RecordLink>
      <a v-if="href && says && !opened" class="leads" :href="href" target="_blank" rel="noopener noreferrer">open</a>
      <div v-if="made" v-show="opened" class="fact-field"><slot /></div>
      <p v-if="told && whyNot" class="soft why" role="status">{{ whyNot }}</p>
    </dd>
  </div>
</template>

<style>
.facts {
  margin: 0;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 236px), 1fr));
  gap: 0 20px;
}
.fact {
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr);
  gap: 0 10px;
  align-items: baseline;
}
.fact.wide {
  grid-column: 1 / -1;
}
.fact.opened {
  padding: 6px 0;
}
.fact dt {
  color: var(--ink-soft);
  font-size: 13px;
}
.fact dd {
  margin: 0;
  min-width: 0;
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 12px;
}
.fact.opened dd {
  display: block;
}
.fact.opened dd {
  grid-column: 1 / -1;
}
.fact .fact-value.n-button {
  flex: 1 1 0;
  justify-content: start;
  padding: 2px 6px;
  margin: 0 -6px;
  line-height: 1.4;
  border-radius: 4px;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
.fact .fact-value.n-button > .n-button__content {
  display: inline;
}
.fact .fact-value.n-button:hover {
  background: var(--shoal-faint);
}
.fact .fact-value.nothing {
  color: var(--ink-soft);
}
.fact .fact-value.fixed {
  cursor: default;
}
.fact .leads {
  font-size: 12px;
}
.fact .why {
  font-size: 13px;
}
</style>
