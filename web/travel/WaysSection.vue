<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NCheckbox } from 'naive-ui/es/checkbox'
import { ref } from 'vue'
import type { RecordFrame } from '#contract/registers'
import { dropWay, readPlaceWays, sayWay } from '#contract/travel'
import type { PlaceWays } from '#contract/travel'
import { call, LoadedPart, NumberEntry, PickField, placeChoices, useRead } from '#web/kit'
import { FoldForm, useLineAct, useOpenSheet } from '#web/sheets'

/** How long the ways from a place take: as somebody said, or as logged travel has shown. */
const { sheet: open } = useOpenSheet<RecordFrame>()
const ways = useRead(readPlaceWays, () => ({ placeId: open.value.id }), {
  holds: true,
  touchedBy: (change) => change.kind.startsWith('travel.'),
})
const { act, at, busy } = useLineAct<PlaceWays>((now) => void (ways.value.value = now))
const fold = ref<InstanceType<typeof FoldForm> | null>(null)
const toId = ref<number | null>(null)
const minutes = ref<number | null>(null)
const both = ref(true)
async function say(): Promise<void> {
  if (toId.value === null || minutes.value === null) return
  const said = { placeId: open.value.id, toId: toId.value, minutes: minutes.value, both: both.value }
  if (!(await act(() => call(sayWay, said), 'The way is noted.'))) return
  toId.value = minutes.value = null
  fold.value?.close()
}
</script>

<template>
  <LoadedPart :part="ways">
    <table v-if="ways.value.value!.rows.length" class="plain-table">
      <thead>
        <tr>
          <th>To</th>
          <th>There</th>
          <th>Back</th>
          <th>From</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in ways.value.value!.rows" :key="row.toId">
          <td>{{ row.to }}</td>
          <td class="mono">{{ row.minutes }} min</td>
          <td class="mono">{{ row.back === null ? '–' : `${row.back} min` }}</td>
          <td>
            {{ row.source === 'hand' ? `said by ${row.by}` : `logged ${row.seen} times` }}
            <NButton
              v-if="row.source === 'hand' && !ways.value.value!.whyNot"
              size="tiny"
              :aria-label="`Take back the way to ${row.to}`"
              @click="act(() => call(dropWay, { placeId: open.id, toId: row.toId }), 'It is reckoned again.')"
              >×</NButton
            >
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else class="soft">Reckoned: on one floor by its plan, between buildings by where they stand, otherwise by the tree of places.</p>
    <FoldForm v-if="!ways.value.value!.whyNot" ref="fold" label="Say how long a way takes" @send="say">
      <PickField id="way-to" label="To" :value="toId" :find="placeChoices" :problem="at('toId')" @pick="(id) => (toId = id as number | null)" />
      <NumberEntry id="way-minutes" v-model="minutes" label="Minutes" :least="0" :most="600" :problem="at('minutes')" />
      <NCheckbox v-model:checked="both">The same back</NCheckbox>
      <NButton size="small" attr-type="submit" :disabled="busy || toId === null || minutes === null">Note it</NButton>
    </FoldForm>
  </LoadedPart>
</template>

<style scoped src="../sheets/lines.css"></style>
