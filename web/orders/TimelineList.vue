<script setup lang="ts">
import type { TimelineEntry } from '#contract/requests'
import { formatMinor } from '#core/kit'
import { ORDER_STATE_NAMES } from '#core/orders'
import { REQUEST_STATE_NAMES } from '#core/requests'
import { longTime, shortTime } from '#web/kit'

/** Who, when, from, to, why: all of it, newest first. */
defineProps<{ entries: TimelineEntry[] }>()
const STATES: Record<string, string> = { ...ORDER_STATE_NAMES, ...REQUEST_STATE_NAMES }
const SAYS: Record<string, string> = {
  'request.report': 'reported it',
  'request.takeUp': 'took it up',
  'request.edit': 'corrected the request',
  'request.accept': 'accepted it',
  'request.ask': 'asked the reporter',
  'request.answer': 'answered',
  'request.decline': 'declined it',
  'request.join': 'joined it to another request',
  'request.another': 'made another order of it',
  'request.undo': 'took the outcome back',
  'request.heard': 'wrote',
  'request.note': 'noted',
  'request.message': 'wrote to the reporter',
  'request.follow': 'follows it',
  'request.notFixed': 'said that it is not fixed',
  'order.create': 'made the order',
  'order.edit': 'changed the order',
  'order.submit': 'submitted it for approval',
  'order.approve': 'approved it',
  'order.sendBack': 'sent it back',
  'order.question': 'asked before deciding',
  'order.close_to': 'saw its target come close',
  'order.past': 'saw its target pass',
  'order.join': 'put it into a group',
  'order.leave': 'took it out of its group',
  'order.lead': 'put another order under it',
  'order.unlead': 'took an order out of its group',
  'order.dispatch': 'dispatched it',
  'order.recall': 'recalled it',
  'order.start': 'started the job',
  'order.hold': 'put it on hold',
  'order.resume': 'resumed it',
  'order.finish': 'finished the work',
  'order.reopen': 'reopened it',
  'order.check': 'checked it',
  'order.post': 'posted the charges',
  'order.close': 'closed it without charge',
  'order.reverse': 'reversed the charges',
  'order.cancel': 'cancelled it',
  'order.discard': 'discarded the draft',
  'order.restore': 'brought the draft back',
  'order.archive': 'archived it',
  'order.revokePass': 'took back the vendor pass',
  'field.stint': 'set the clock to',
  'field.stop': 'stopped the clock',
  'field.part': 'used',
  'field.note': 'noted',
  'field.photo': 'added a photo',
  'field.leave': 'left the job',
  'vendor.bill': 'entered a bill',
}
const FIELDS: Record<string, string> = {
  summary: 'summary',
  description: 'description',
  placeId: 'place',
  assetId: 'asset',
  categoryId: 'category',
  consequence: 'consequence',
  hazardSeverity: 'severity of the hazard',
  hazardLikelihood: 'likelihood of the hazard',
  urgency: 'urgency',
  priority: 'priority',
  payerId: 'payer',
  tradeId: 'trade',
  teamId: 'team',
  leadId: 'lead',
  supervisorId: 'supervisor',
  vendorId: 'vendor',
  estimateMinor: 'estimate',
  shares: 'payers',
  kind: 'kind',
  access: 'access',
  noteForWorker: 'note for the worker',
  noteForPayer: 'note for the payer',
  outsideReference: 'outside reference',
  symptom: 'symptom',
  cause: 'cause',
  fix: 'fix',
}
const RESULTS: Record<string, string> = { done: 'done', return: 'needs a return visit', part: 'waiting for a part', handed_over: 'handed over' }

function detail(entry: TimelineEntry): string {
  const details = entry.details ?? {}
  if (entry.kind === 'field.stint') return String(details.stint)
  if (entry.kind === 'field.stop') return `after ${String(details.minutes)} min ${String(details.stint)}`
  if (entry.kind === 'field.part') return `${String(details.quantity)} ${String(details.unit)} ${String(details.part)}`
  if (entry.kind === 'field.leave') return RESULTS[String(details.result)] ?? ''
  if (entry.kind === 'vendor.bill') return `${String(details.number)}, ${formatMinor(Number(details.netMinor))} before tax`
  if (entry.kind === 'order.dispatch' && details.start) return `for ${shortTime(String(details.start))}`
  if (details.order) return `as ${String(details.order)}`
  if (details.fields)
    return Object.entries(details.fields)
      .map(([field, change]) => `${FIELDS[field] ?? field}${shown(field, change)}`)
      .join(', ')
  return ''
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
          <strong>{{ entry.who }}</strong> {{ SAYS[entry.kind] ?? entry.kind }} {{ detail(entry) }}
          <span v-if="entry.to && entry.from !== entry.to" class="soft"
            >({{ entry.from ? `${STATES[entry.from] ?? entry.from} → ` : '' }}{{ STATES[entry.to] ?? entry.to }})</span
          >
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
