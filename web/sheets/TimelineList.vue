<script setup lang="ts">
import type { TimelineEntry } from '#contract/requests'
import { eventRule } from '#core/events'
import { formatMinor } from '#core/kit'
import { ORDER_STATE_NAMES } from '#core/orders'
import { REQUEST_STATE_NAMES } from '#core/requests'
import { longTime, shortTime } from '#web/kit'
import { eventSays } from './eventSays'
import { ORDER_FIELD_NAMES } from './fieldNames'

/** Who, when, from, to, why: all of it, newest first. */
const props = defineProps<{
  entries: TimelineEntry[]
  /** What fields are called, where they are not those of orders. */
  names?: Record<string, string>
}>()
const STATES: Record<string, string> = { ...ORDER_STATE_NAMES, ...REQUEST_STATE_NAMES }
const FIELDS: Record<string, string> = { ...ORDER_FIELD_NAMES, payerId: 'Payer', priority: 'Priority' }
const nameOf = (field: string) => (props.names?.[field] ?? FIELDS[field] ?? field).replace(/^\p{Lu}/u, (letter) => letter.toLowerCase())

/** What they did; where nothing more is said of it, which fields, from what to what. */
function sentence(entry: TimelineEntry): string {
  const changed = Object.entries(entry.details?.fields ?? {})
    .map(([field, change]) => `${nameOf(field)}${shown(field, change)}`)
    .join(', ')
  const said = eventSays(entry)
  return said === eventRule(entry.kind).says && changed ? `${said} ${changed}` : said
}

/** Values people can read are shown; ids of other records are not. */
function shown(field: string, { from, to }: { from: unknown; to: unknown }): string {
  if (field.endsWith('Id') || field === 'description') return ''
  const text = (value: unknown) =>
    value === null || value === undefined ? 'nothing' : field === 'estimateMinor' ? formatMinor(Number(value)) : String(value).replaceAll('_', ' ')
  return ` from ${text(from)} to ${text(to)}`
}
</script>

<template>
  <ol class="timeline">
    <li v-for="entry in entries" :key="entry.id">
      <time class="mono" :datetime="entry.at" :title="longTime(entry.at)">{{ shortTime(entry.at) }}</time>
      <div>
        <p>
          <strong>{{ entry.who }}</strong> {{ sentence(entry) }}
          <span v-if="entry.to && entry.from !== entry.to" class="soft"
            >({{ entry.from ? `${STATES[entry.from] ?? entry.from} → ` : '' }}{{ STATES[entry.to] ?? entry.to }})</span
          >
          <span v-if="entry.details?.heardAt" class="soft">(sent {{ shortTime(String(entry.details.heardAt)) }})</span>
        </p>
        <blockquote v-if="entry.reason">{{ entry.reason }}</blockquote>
      </div>
    </li>
  </ol>
</template>

<style scoped>
.timeline {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
li {
  display: grid;
  grid-template-columns: 92px 1fr;
  gap: 10px;
}
time {
  font-size: 12px;
  color: var(--ink-soft);
  padding-top: 2px;
}
blockquote {
  margin: 2px 0 0;
  padding-left: 10px;
  border-left: 3px solid var(--line);
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
</style>
