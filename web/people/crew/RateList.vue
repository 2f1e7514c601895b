<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { addRate, dropRate } from '#contract/people'
import type { CrewSheet } from '#contract/people'
import { formatMinor } from '#core/kit'
import { call, dayOf, DecimalField, MomentEntry, useFormDraft } from '#web/kit'
import { FoldForm, useLineAct } from '#web/sheets'

/** What an hour costs, from which day on; what is in force stays, since work was charged by it. */
const props = defineProps<{ crew: CrewSheet }>()
const emit = defineEmits<{ now: [CrewSheet] }>()
const { act, at, busy } = useLineAct((crew: CrewSheet) => emit('now', crew))
const fold = ref<InstanceType<typeof FoldForm> | null>(null)
const { form, kept, drop } = useFormDraft(`rate-${props.crew.id}`, { from: '', normal: null as number | null, overtime: null as number | null })
async function add(): Promise<void> {
  const { from, normal, overtime } = form
  if (normal === null || overtime === null) return
  if (!(await act(() => call(addRate, { id: props.crew.id, from, normalPerHour: normal, overtimePerHour: overtime }), `From ${dayOf(from)} on.`))) return
  drop()
  fold.value?.close()
}
</script>

<template>
  <h3>Rates for an hour</h3>
  <table v-if="crew.rates!.length" class="plain-table">
    <thead>
      <tr>
        <th>From</th>
        <th class="right">Normal</th>
        <th class="right">Overtime</th>
        <th><span class="hidden">Away</span></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="rate in crew.rates" :key="rate.id">
        <td>{{ dayOf(rate.from) }}</td>
        <td class="right mono violet">{{ formatMinor(rate.normalPerHour) }}</td>
        <td class="right mono violet">{{ formatMinor(rate.overtimePerHour) }}</td>
        <td class="right">
          <NButton
            v-if="!crew.whyNot && rate.future"
            size="tiny"
            :aria-label="`Take the rate from ${dayOf(rate.from)} back`"
            @click="act(() => call(dropRate, { id: crew.id, itemId: rate.id }), 'That rate is taken back.')"
            >×</NButton
          >
        </td>
      </tr>
    </tbody>
  </table>
  <p v-else class="soft">None is said: their work costs nothing.</p>
  <FoldForm v-if="!crew.whyNot" ref="fold" label="Add a rate" :begun="kept" @send="add">
    <MomentEntry id="rate-from" v-model="form.from" day label="From" :problem="at('from')" />
    <DecimalField
      id="rate-normal"
      kind="money"
      label="Normal"
      :value="form.normal"
      :problem="at('normalPerHour')"
      @save="(now) => (form.normal = now as number | null)"
    />
    <DecimalField
      id="rate-overtime"
      kind="money"
      label="Overtime"
      :value="form.overtime"
      :problem="at('overtimePerHour')"
      @save="(now) => (form.overtime = now as number | null)"
    />
    <NButton size="small" attr-type="submit" :disabled="busy || !form.from || form.normal === null || form.overtime === null">Add the rate</NButton>
  </FoldForm>
</template>

<style scoped src="../../sheets/lines.css"></style>
