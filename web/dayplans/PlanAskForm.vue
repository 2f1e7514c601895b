<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NCheckbox } from 'naive-ui/es/checkbox'
import { computed, ref } from 'vue'
import type { BoardPerson } from '#contract/board'
import { MOST_OVERTIME } from '#contract/dayplans'
import type { AskedWhatIf, DayPlanAsk } from '#contract/dayplans'
import { ChoiceEntry, ListEntry, named, NumberEntry, rowsNamed } from '#web/kit'

/** What a plan is to be for: who, how long it may be looked for, and what else is to be tried beside it. */
const props = defineProps<{ people: BoardPerson[]; team: string | null; repairs: boolean; busy: boolean }>()
const emit = defineEmits<{ ask: [Omit<DayPlanAsk, 'siteId' | 'first' | 'days'>] }>()

const shown = computed(() => props.people.filter((one) => !props.team || one.team === props.team))
const overtime = ref<number | null>(0)
const seconds = ref<number | null>(5)
const repair = ref(props.repairs)
const SECONDS = [5, 20, 60].map((value) => ({ value, label: `${value} s` }))

type Kind = AskedWhatIf['kind']
const KINDS = ['more', 'off', 'overtime', 'start'] as const
const KIND_NAMES: Record<Kind, string> = { more: 'One more like', off: 'Without', overtime: 'Overtime allowed', start: 'Another start of shift' }
const whatIf = ref<{ kind: Kind; technicianId: number | null; minutes: number | null }[]>([])
const MOST = 4
const add = () => whatIf.value.push({ kind: 'overtime', technicianId: shown.value[0]?.id ?? null, minutes: 60 })
function ask(): void {
  const asked = whatIf.value.flatMap(({ kind, technicianId, minutes }): AskedWhatIf[] => {
    if (kind === 'overtime') return [{ kind, minutes: minutes ?? 0 }]
    if (technicianId === null) return []
    return kind === 'start' ? [{ kind, technicianId, minutes: minutes ?? 0 }] : [{ kind, technicianId }]
  })
  emit('ask', {
    ...(props.team ? { technicianIds: shown.value.map(({ id }) => id) } : {}),
    overtimeMinutes: overtime.value ?? 0,
    seconds: seconds.value ?? 5,
    ...(repair.value ? { repair: true } : {}),
    ...(asked.length ? { whatIf: asked } : {}),
  })
}
</script>

<template>
  <form aria-label="What to plan" @submit.prevent="ask">
    <p class="soft">
      For the days shown, {{ team ? `those of ${team}` : 'everybody' }}: what waits and is ready is given to people, and what is planned may move. Nothing
      changes until you make its moves.
    </p>
    <NumberEntry id="plan-overtime" v-model="overtime" label="Overtime allowed" unit="min" :least="0" :most="MOST_OVERTIME" :step="15" />
    <ChoiceEntry id="plan-seconds" v-model="seconds" label="Look for" :options="SECONDS" />
    <NCheckbox v-model:checked="repair">As few changes as can be</NCheckbox>
    <fieldset>
      <legend>What if</legend>
      <div v-for="(one, n) in whatIf" :key="n" class="what">
        <ListEntry :id="`what-${n}`" v-model="one.kind" label="What" label-hidden :options="named(KINDS, KIND_NAMES)" />
        <ListEntry v-if="one.kind !== 'overtime'" :id="`who-${n}`" v-model="one.technicianId" label="Who" label-hidden :options="rowsNamed(shown)" />
        <NumberEntry
          v-if="one.kind === 'overtime' || one.kind === 'start'"
          :id="`minutes-${n}`"
          v-model="one.minutes"
          label="Minutes"
          label-hidden
          unit="min"
          :least="one.kind === 'start' ? -MOST_OVERTIME : 0"
          :most="MOST_OVERTIME"
          :step="15"
        />
        <NButton size="small" :aria-label="`Leave out: ${KIND_NAMES[one.kind]}`" @click="whatIf.splice(n, 1)">×</NButton>
      </div>
      <NButton v-if="whatIf.length < MOST" size="small" @click="add">Try something else beside it</NButton>
    </fieldset>
    <NButton type="primary" attr-type="submit" :loading="busy">Compute a plan</NButton>
  </form>
</template>

<style scoped src="../board/panel.css"></style>
<style scoped>
fieldset {
  display: grid;
  gap: 8px;
  justify-items: start;
  border: 0;
  margin: 0;
  padding: 0;
}
legend {
  font-weight: 600;
  font-size: 13px;
  padding: 0 0 4px;
}
.what {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
</style>
