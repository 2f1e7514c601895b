<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import type { OrderFields, OrderSheet } from '#contract/orders'
import { agreeWindow, readOrderWindows, withdrawTimes } from '#contract/windows'
import type { TimeOffer } from '#contract/windows'
import { OFFER_STATE_NAMES } from '#core/windows'
import { OrderClosures } from '#web/closures'
import { call, LoadedPart, shortTime, spanTime, useRead } from '#web/kit'
import { useLineAct, useOpenSheet } from '#web/sheets'
import AgreeForm from './AgreeForm.vue'
import OfferForm from './OfferForm.vue'

/** The time agreed with whoever lets people in: offered for them to choose from, or noted as it was said on the telephone. */
const { sheet: it, reload } = useOpenSheet<OrderSheet, OrderFields>()
const read = useRead(readOrderWindows, () => ({ orderId: it.value.id }), {
  holds: true,
  touchedBy: ({ orderId, kind }) => orderId === it.value.id && (kind.startsWith('window.') || kind.startsWith('order.')),
})
const doing = ref<'offer' | 'agree' | null>(null)
const open = computed(() => read.value.value?.offers.find(({ state }) => state === 'open'))
const earlier = computed(() => read.value.value?.offers.filter((offer) => offer !== open.value) ?? [])
const { act, busy } = useLineAct<unknown>(() => void read.load())

function stateSays({ state, passed, answeredAt, answer, chosen }: TimeOffer): string {
  if (passed) return 'not answered, and all of it has passed'
  const at = answeredAt ? `, ${shortTime(answeredAt)}` : ''
  const what = state === 'chosen' && chosen ? `chose ${spanTime(chosen.from, chosen.until)}` : OFFER_STATE_NAMES[state].toLowerCase()
  return `${what}${at}${answer ? `: “${answer}”` : ''}`
}
const takeBack = (offer: TimeOffer) => act(() => call(withdrawTimes, { id: offer.id, version: offer.version }), 'The times are taken back.')
const takeOff = () =>
  act(async () => {
    await call(agreeWindow, { id: it.value.id, version: it.value.version, from: null, until: null })
    await reload()
  }, 'No time is agreed any more.')
function done(): void {
  doing.value = null
  void read.load()
}
</script>

<template>
  <p id="s-window" class="agreed">
    <template v-if="it.window">
      Agreed for <strong class="mono">{{ spanTime(it.window.from, it.window.until) }}</strong><template v-if="it.window.with">
        with {{ it.window.with }}</template
      >
    </template>
    <span v-else class="soft">No time is agreed with whoever lets people in.</span>
    <template v-if="read.value.value?.mayOffer && !doing">
      <NButton v-if="!open" size="small" :quaternary="!!it.window" @click="doing = 'offer'">Offer times</NButton>
      <NButton size="small" quaternary @click="doing = 'agree'">{{ it.window ? 'Agree on another' : 'Note a time agreed' }}</NButton>
      <NButton v-if="it.window" size="small" quaternary :disabled="busy" @click="takeOff">Take it off</NButton>
    </template>
  </p>
  <LoadedPart :part="read">
    <OfferForm v-if="doing === 'offer'" :order-id="it.id" :windows="read.value.value!" @leave="doing = null" @done="done" />
    <AgreeForm v-else-if="doing === 'agree'" :order="it" :proposed="read.value.value!.proposed[0]" @leave="doing = null" @done="(void reload(), done())" />
    <div v-if="open" class="offer" role="group" aria-label="Times offered">
      <p>
        Offered to {{ open.name }}, <span class="soft">{{ open.email }}, {{ shortTime(open.askedAt) }} by {{ open.askedBy }}</span>
      </p>
      <ul>
        <li v-for="time in open.times" :key="time.from" class="mono">{{ spanTime(time.from, time.until) }}</li>
      </ul>
      <p>
        <strong :class="{ problem: open.passed }">{{ open.passed ? 'Not answered, and all of it has passed.' : 'Not answered yet.' }}</strong>
        <template v-if="read.value.value!.mayOffer && !doing">
          <NButton size="small" @click="doing = 'offer'">Offer others</NButton>
          <NButton size="small" quaternary :disabled="busy" @click="takeBack(open)">Take them back</NButton>
        </template>
      </p>
    </div>
    <ul v-if="earlier.length" class="earlier" aria-label="Offered before">
      <li v-for="offer in earlier" :key="offer.id">
        <span class="soft">{{ offer.times.length }} {{ offer.times.length === 1 ? 'time' : 'times' }}, {{ shortTime(offer.askedAt) }}:</span> {{ offer.name }}
        {{ stateSays(offer) }}
      </li>
    </ul>
  </LoadedPart>
  <OrderClosures :order-id="it.id" :summary="it.summary" />
</template>

<style scoped>
.agreed,
.offer p {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: baseline;
  margin: 0 0 6px;
}
.offer {
  border-left: 4px solid var(--line-strong);
  padding-left: 12px;
  margin: 6px 0;
}
ul {
  margin: 0 0 6px;
  padding-left: 18px;
}
.earlier {
  list-style: none;
  padding: 0;
}
</style>
