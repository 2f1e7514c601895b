<script setup lang="ts">
import { computed, defineAsyncComponent } from 'vue'
import { recallOrder } from '#contract/orders'
import type { OrderSheet } from '#contract/orders'
import { isUnapproved } from '#core/orders'
import { call, useSession, useUndo } from '#web/kit'
import { useOpenSheet } from '#web/sheets'
import { VISITS } from './anchor'
import VisitList from './VisitList.vue'

/** Loaded where somebody is sent: the first view of the Desk sends nobody. */
const DispatchForm = defineAsyncComponent(() => import('./DispatchForm.vue'))
/** Who was sent and when; where the order waits for somebody to go, who that will be. */
const props = defineProps<{ now?: boolean }>()
const { sheet: it, begun, reload } = useOpenSheet<OrderSheet>()
const session = useSession()
const said = useUndo()
const may = computed(() => session.can('orders.dispatch'))
const open = computed(() => may.value && (begun.value === VISITS || (!!props.now && it.value.state === 'ready')))

function dispatched(version: number): void {
  const { id, number } = it.value
  begun.value = null
  said.say(`${number} is dispatched; everybody sent has been told.`, () => call(recallOrder, { id, version, reason: 'Taken back at once.' }).then(reload))
  void reload()
}
</script>

<template>
  <VisitList :visits="it.visits" :site-id="it.site.id" :may-revoke="may" @changed="reload" />
  <DispatchForm
    v-if="open"
    :order-id="it.id"
    :version="it.version"
    :vendor-id="it.vendorId"
    :steps-first="it.facts.stepsFirst"
    :window="it.window"
    :fixed="it.state === 'ready'"
    @leave="begun = null"
    @done="dispatched"
  />
  <p v-else-if="!it.visits.length" class="soft">Nobody has been sent yet{{ isUnapproved(it.state) ? '; the order has to be approved first' : '' }}.</p>
</template>
