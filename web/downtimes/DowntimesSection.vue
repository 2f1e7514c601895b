<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'
import { addDowntime, dropDowntime, endDowntime, readDowntimes } from '#contract/downtimes'
import type { AssetDowntimes } from '#contract/downtimes'
import { call, LoadedPart, shortTime, spell, useNow, useRead, useSession } from '#web/kit'
import { useLineAct, useOpenSheet } from '#web/sheets'
import DowntimeForm from './DowntimeForm.vue'

/** When an asset could not be used, and how long in a year. */
const { sheet: it } = useOpenSheet<{ id: number }>()
const session = useSession()
const now = useNow()
const read = useRead(readDowntimes, () => ({ assetId: it.value.id }), { holds: true, touchedBy: ({ kind }) => kind.startsWith('downtime.') })
const { act, at, busy } = useLineAct<AssetDowntimes>((stands) => void (read.value.value = stands))
const maySay = computed(() => session.can('orders.edit'))
const lasts = computed(() => read.value.value?.rows.some(({ untilAt }) => untilAt === null))
const adding = ref(false)
async function say(period: { fromAt: string; untilAt?: string; reason?: string }): Promise<void> {
  if (await act(() => call(addDowntime, { assetId: it.value.id, ...period }), 'It is written down.')) adding.value = false
}
const end = (id: number) => act(() => call(endDowntime, { id }), 'It can be used again.')
const drop = (id: number) => act(() => call(dropDowntime, { id }), 'It is taken back.')
const long = (fromAt: string, untilAt: string | null) => spell(((untilAt ? new Date(untilAt).getTime() : now.value) - new Date(fromAt).getTime()) / 60_000)
</script>

<template>
  <LoadedPart :part="read">
    <p v-if="!read.value.value!.rows.length && !adding" class="soft">Nothing is written down: it could be used all the time.</p>
    <p v-else-if="read.value.value!.rows.length">
      <strong>{{ spell(read.value.value!.minutesOfYear) }}</strong> in the last twelve months.
    </p>
    <ul v-if="read.value.value!.rows.length">
      <li v-for="row in read.value.value!.rows" :key="row.id">
        <span
          >{{ shortTime(row.fromAt) }} <template v-if="row.untilAt">to {{ shortTime(row.untilAt) }}</template
          ><strong v-else> until now</strong>, {{ long(row.fromAt, row.untilAt) }}</span
        >
        <span class="soft"
          >{{ [row.reason, row.who].filter(Boolean).join(' · ')
          }}<template v-if="row.order">
            on <RouterLink class="mono" :to="`/desk/field/order/${row.order.id}`">{{ row.order.number }}</RouterLink></template
          ></span
        >
        <template v-if="maySay">
          <NButton v-if="!row.untilAt" size="small" :disabled="busy" @click="end(row.id)">It can be used again</NButton>
          <NButton text size="small" type="primary" :aria-label="`Take back: ${shortTime(row.fromAt)}`" :disabled="busy" @click="drop(row.id)"
            >Take back</NButton
          >
        </template>
      </li>
    </ul>
    <DowntimeForm v-if="adding" :busy="busy" :problem-at="at" @say="say" @leave="adding = false" />
    <p v-else-if="maySay && !lasts"><NButton size="small" @click="adding = true">It cannot be used</NButton></p>
  </LoadedPart>
</template>

<style scoped>
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: baseline;
  padding: 3px 0;
}
p {
  margin: 0;
}
</style>
