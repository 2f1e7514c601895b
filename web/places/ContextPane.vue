<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink } from 'vue-router'
import { readContext } from '#contract/places'
import { warrantyHeed } from '#core/assets'
import { isChange } from '#core/events'
import { counted, formatMinor } from '#core/kit'
import { ORDER_STATE_NAMES } from '#core/orders'
import { REQUEST_STATE_NAMES } from '#core/requests'
import { dayOf, offerActs, ProblemNote, RecordLink, serverNow, shortTime, toLocalField, usePortrait, useRead } from '#web/kit'

/** What is known around the open Sheet: this place, this asset, this reporter, what is open, what was done. */
const props = defineProps<{
  about: { placeId?: number; assetId?: number; requestId?: number; orderId?: number }
  station: string
  /** Whether another Sheet is being opened already: what stands here is still of the one before. */
  leaving?: boolean
}>()
const context = useRead(readContext, () => props.about, { holds: true, touchedBy: ({ kind }) => isChange(kind) })
const portrait = usePortrait()
/** The Portraits of what the open Sheet is about, by key too: never those of the one before, whose facts stand here until its own have come. */
offerActs(() => {
  const { asset, place } = (!props.leaving && context.value.value) || {}
  return [
    ...(asset && asset.id === props.about.assetId
      ? [{ label: `Portrait of ${asset.tag} ${asset.name}`, key: '.', run: () => portrait.open({ register: 'assets', id: asset.id }) }]
      : []),
    ...(place && place.id === props.about.placeId
      ? [{ label: `Portrait of ${place.code} ${place.name}`, key: ',', run: () => portrait.open({ register: 'places', id: place.id }) }]
      : []),
  ]
})
/** Second, third, 4th: how often it has failed, this time among them. */
const nth = (times: number) => ['', 'First', 'Second', 'Third', 'Fourth', 'Fifth'][times] ?? `${times}th`
/** An order is one of the repairs already; a request would be the next. */
const times = computed(() => (context.value.value?.asset?.repairs90Days ?? 0) + (props.about.orderId ? 0 : 1))
const stateName = (state: string) => ({ ...ORDER_STATE_NAMES, ...REQUEST_STATE_NAMES })[state as 'new'] ?? state
</script>

<template>
  <div class="known">
    <ProblemNote v-if="context.problem.value" :problem="context.problem.value" @retry="context.load" />
    <template v-else-if="context.value.value">
      <section v-if="context.value.value.asset" aria-label="This asset">
        <h2>This asset</h2>
        <p>
          <RecordLink :record="{ register: 'assets', id: context.value.value.asset.id }"
            ><span class="mono">{{ context.value.value.asset.tag }}</span> {{ context.value.value.asset.name }}</RecordLink
          >
        </p>
        <p v-if="context.value.value.asset.underWarranty" class="heed">
          {{ warrantyHeed(context.value.value.asset, toLocalField(serverNow()).slice(0, 10), dayOf) }}
        </p>
        <p v-else-if="context.value.value.asset.warrantyUntil" class="soft">Warranty ended {{ dayOf(context.value.value.asset.warrantyUntil) }}</p>
        <p v-if="times > 1" class="heed">{{ nth(times) }} time in 90 days</p>
        <p class="soft">
          {{ [context.value.value.asset.maker, context.value.value.asset.model].filter(Boolean).join(' ')
          }}<template v-if="context.value.value.asset.installedOn">, installed {{ dayOf(context.value.value.asset.installedOn) }}</template>
        </p>
      </section>
      <section v-if="context.value.value.place" aria-label="This place">
        <h2>This place</h2>
        <p>
          <RecordLink :record="{ register: 'places', id: context.value.value.place.id }"
            ><span class="mono">{{ context.value.value.place.code }}</span> {{ context.value.value.place.name }}</RecordLink
          >
        </p>
        <p class="soft">{{ context.value.value.place.within }}</p>
        <p v-if="context.value.value.place.access">{{ context.value.value.place.access }}</p>
        <p class="soft">
          {{ counted(context.value.value.place.openOrders, 'open order') }}, {{ counted(context.value.value.place.openRequests, 'open request') }}
        </p>
      </section>
      <section v-if="context.value.value.reporter" aria-label="This reporter">
        <h2>This reporter</h2>
        <p>
          {{ context.value.value.reporter.name }}<template v-if="context.value.value.reporter.title">, {{ context.value.value.reporter.title }}</template>
        </p>
        <p class="soft">{{ context.value.value.reporter.phone }}</p>
        <RouterLink v-for="one in context.value.value.reporter.earlier" :key="one.id" class="row" :to="`/desk/${station}/request/${one.id}`"
          ><span class="mono">{{ one.number }}</span> {{ one.summary }} <span class="soft">{{ stateName(one.state) }}</span></RouterLink
        >
      </section>
      <section aria-label="Open here">
        <h2>Open here</h2>
        <RouterLink v-for="one in context.value.value.open" :key="one.type + one.id" class="row" :to="`/desk/${station}/${one.type}/${one.id}`"
          ><span class="mono">{{ one.number }}</span> {{ one.summary }}
          <span class="soft">{{ stateName(one.state) }}, {{ shortTime(one.at) }}</span></RouterLink
        >
        <p v-if="!context.value.value.open.length" class="soft">Nothing else is open here.</p>
      </section>
      <section aria-label="Done before">
        <h2>Done before</h2>
        <RouterLink v-for="one in context.value.value.history" :key="one.id" class="row" :to="`/desk/${station}/order/${one.id}`">
          <span class="mono">{{ one.number }}</span> {{ one.summary }}
          <span class="soft"
            >{{ one.finishedAt ? shortTime(one.finishedAt) : '' }}<template v-if="one.fix">: {{ one.cause }}, {{ one.fix }}</template>
            <span class="mono violet">{{ formatMinor(one.costMinor) }}</span></span
          >
        </RouterLink>
        <p v-if="!context.value.value.history.length" class="soft">Nothing was done here before.</p>
      </section>
    </template>
    <div v-else class="loading"><span v-for="n in 4" :key="n" class="bones" /></div>
  </div>
</template>

<style scoped>
.known {
  padding: 12px 14px;
  display: grid;
  gap: 16px;
  font-size: 13px;
}
section {
  display: grid;
  gap: 4px;
}
h2 {
  font-size: 13px;
}
.row {
  display: block;
  color: var(--ink);
  text-decoration: none;
  padding: 3px 0 3px 8px;
  border-left: 2px solid var(--line-strong);
  overflow-wrap: anywhere;
}
.row:hover {
  background: var(--shoal-faint);
  border-left-color: var(--tide);
}
.row .violet {
  margin-left: 6px;
}
.heed {
  padding: 4px 8px;
  border-left: 4px solid var(--sand);
  background: var(--sheet);
  color: var(--sand-text);
  font-weight: 600;
}
.loading {
  display: grid;
  gap: 12px;
}
.loading .bones {
  height: 40px;
}
</style>
