<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import { enterCount, printCountSheet, readCountSheet } from '#contract/stock'
import type { CountResult } from '#contract/stock'
import { counted } from '#core/kit'
import { address, call, DecimalField, LoadedPart, PickField, TextEntry, useRead, writtenAs } from '#web/kit'
import { useLineAct } from '#web/sheets'
import { storeChoices } from './finders'
import StockHead from './StockHead.vue'

/** A store is counted: its sheet is printed, and what was found is entered beside it. */
const store = ref<number | null>(null)
void storeChoices('').then(([first]) => (store.value ??= first ? Number(first.value) : null))
const read = useRead(readCountSheet, () => (store.value === null ? null : { storeId: store.value }), { anew: true })
/** As the sheet was when the first number was entered: what moves meanwhile is told, not overwritten. */
const found = ref<Record<number, string | null>>({})
const expected = ref<Record<number, string>>({})
const results = ref<Record<number, CountResult>>({})
const reason = ref('')
watch(store, () => ((found.value = {}), (expected.value = {}), (results.value = {})))
type Field = InstanceType<typeof DecimalField> | null
const fields = ref<Record<number, Field>>({})
const entered = computed(() => Object.entries(found.value).flatMap(([id, value]) => (value === null ? [] : [Number(id)])))
const { act, at, busy } = useLineAct<{ rows: CountResult[] }>((now) => {
  results.value = Object.fromEntries(now.rows.map((row) => [row.partId, row]))
  for (const { partId } of now.rows) {
    delete found.value[partId]
    delete expected.value[partId]
  }
  void read.load()
})
function note(partId: number, onHand: string, value: number | string | null): void {
  found.value[partId] = value === null ? null : String(value)
  expected.value[partId] ??= onHand
  delete results.value[partId]
}
async function enter(): Promise<void> {
  // What was typed last is read before it is sent.
  if (Object.values(fields.value).some((field) => field?.leave() === false) || !entered.value.length) return
  const lines = entered.value.map((partId) => ({ partId, found: found.value[partId]!, expected: expected.value[partId]! }))
  await act(() => call(enterCount, { storeId: store.value!, reason: reason.value.trim(), lines }), `${counted(lines.length, 'part')} counted.`)
}
</script>

<template>
  <div class="page">
    <StockHead />
    <section aria-label="Count">
      <div class="choices">
        <PickField
          id="count-store"
          label="Store"
          :value="store"
          :find="storeChoices"
          :current="store !== null && read.value.value ? { value: store, label: read.value.value.store } : null"
          @pick="store = $event === null ? null : Number($event)"
        />
        <a v-if="store !== null" :href="address(printCountSheet, { storeId: store })" download>Sheet to print (PDF)</a>
      </div>
      <p v-if="store === null" class="soft">Choose the store that is counted.</p>
      <LoadedPart v-else :part="read">
        <p v-if="!read.value.value!.lines.length" class="soft">Nothing was ever kept in {{ read.value.value!.store }}.</p>
        <form v-else aria-label="What was found" @submit.prevent="enter">
          <table class="plain-table" aria-label="Parts of the store">
            <thead>
              <tr>
                <th>Part</th>
                <th class="amount">Should be there</th>
                <th class="found">Found</th>
                <th></th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="line in read.value.value!.lines" :key="line.partId">
                <td>
                  <span class="mono soft">{{ line.code }}</span> {{ line.name }}
                </td>
                <td class="amount mono">{{ writtenAs('quantity', line.onHand) }} {{ line.unit }}</td>
                <td class="found">
                  <DecimalField
                    :id="`found-${line.partId}`"
                    :key="`${line.partId}-${results[line.partId]?.standing ?? ''}`"
                    :ref="(one) => (fields[line.partId] = one as Field)"
                    label-hidden
                    :label="`Found of ${line.name}`"
                    kind="quantity"
                    :value="found[line.partId] ?? null"
                    :disabled="!read.value.value!.mayEnter"
                    @save="note(line.partId, line.onHand, $event)"
                  />
                </td>
                <td :class="{ problem: results[line.partId]?.standing === 'moved' }">{{ results[line.partId]?.sentence }}</td>
              </tr>
            </tbody>
          </table>
          <div v-if="read.value.value!.mayEnter" class="choices end">
            <TextEntry id="count-reason" v-model="reason" label="Who counted, and why it differs" :max="200" :problem="at('reason')" />
            <NButton type="primary" attr-type="submit" :disabled="busy || !entered.length || !reason.trim()">{{
              entered.length ? `Enter ${counted(entered.length, 'part')}` : 'Enter the count'
            }}</NButton>
          </div>
          <p v-if="at('lines')" class="problem" role="alert">{{ at('lines') }}</p>
        </form>
      </LoadedPart>
    </section>
  </div>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 12px 16px;
  align-items: end;
}
.choices > :deep(.pick) {
  width: 280px;
}
.end {
  margin-top: 12px;
}
.end > :first-child {
  flex: 1 1 280px;
  max-width: 480px;
}
.plain-table td {
  vertical-align: middle;
}
.found {
  width: 140px;
}
</style>
