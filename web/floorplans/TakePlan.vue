<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NCheckbox } from 'naive-ui/es/checkbox'
import { computed, ref } from 'vue'
import { takeFloorplan } from '#contract/floorplans'
import { counted } from '#core/kit'
import { call, DialogBox, FileEntry, useTaking, useUndo } from '#web/kit'

/** A plan from a file: what it would draw is shown before anything is drawn; what is good may go in alone. */
const props = defineProps<{ planId: number; called: string }>()
const emit = defineEmits<{ close: []; taken: [] }>()
const undo = useUndo()
const make = ref(false)
const { file, report, wrong, busy, choose, take } = useTaking((chosen, taking) =>
  call(takeFloorplan, { id: props.planId, name: chosen.name, ...(taking ? { take: true, make: make.value } : {}) }, { file: chosen }),
)
const NAMES = { new: 'Not in the register yet', drawn: 'Drawn for the first time', changed: 'Drawn anew', same: 'As it is', bad: 'Cannot be taken' } as const
const STANDINGS = Object.keys(NAMES) as (keyof typeof NAMES)[]
const good = computed(() => (report.value ? report.value.counts.drawn + report.value.counts.changed + (make.value ? report.value.counts.new : 0) : 0))
/** What is bad first, then what needs a decision; what stays as it is goes unsaid. */
const told = computed(() => report.value?.rows.filter(({ standing }) => standing !== 'same').sort((a, b) => rank(a.standing) - rank(b.standing)) ?? [])
const rank = (standing: keyof typeof NAMES) => ['bad', 'new', 'changed', 'drawn', 'same'].indexOf(standing)
const MOST_SHOWN = 100

async function draw(): Promise<void> {
  const drawn = good.value
  if (!(await take())) return
  undo.say(`${counted(drawn, 'place or asset', 'places and assets')} drawn on ${props.called}.`)
  emit('taken')
}
</script>

<template>
  <DialogBox :title="`A plan for ${called}`" wide @close="emit('close')">
    <h1>A plan for {{ called }}</h1>
    <p class="soft">
      GeoJSON (RFC 7946) in metres from a corner of the floor: a polygon for each space, with its <span class="mono">code</span>, a point for each asset, with
      its <span class="mono">tag</span>. Nothing is drawn until you say so, and what is not in the file stays.
    </p>
    <FileEntry id="plan-file" label="File" :press="file ? file.name : 'Choose a file'" accept=".geojson,.json,application/geo+json" @choose="choose" />
    <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
    <template v-if="report">
      <dl class="counts">
        <div v-for="standing in STANDINGS" :key="standing">
          <dt>{{ NAMES[standing] }}</dt>
          <dd class="mono">{{ report.counts[standing] }}</dd>
        </div>
      </dl>
      <p v-if="report.left" class="soft">{{ counted(report.left, 'thing') }} drawn now and not in the file: drawn as before.</p>
      <NCheckbox v-if="report.counts.new" v-model:checked="make">Enter in the register what is not there yet ({{ report.counts.new }})</NCheckbox>
      <ul v-if="told.length" class="rows" aria-label="What the file holds">
        <li v-for="row in told.slice(0, MOST_SHOWN)" :key="row.feature">
          <span class="mono">{{ row.code || `Feature ${row.feature}` }}</span>
          <span>{{ row.name }}</span>
          <strong v-if="row.standing === 'bad'" class="problem">Feature {{ row.feature }}: {{ row.sentences.join(' ') }}</strong>
          <span v-else class="soft">{{ NAMES[row.standing] }}</span>
        </li>
        <li v-if="told.length > MOST_SHOWN" class="soft">And {{ told.length - MOST_SHOWN }} more.</li>
      </ul>
      <div class="acts">
        <NButton type="primary" :disabled="!good || busy" @click="draw">{{
          good ? `Draw ${good}${report.counts.bad ? `, leave the ${report.counts.bad} that cannot be` : ''}` : 'Nothing to draw'
        }}</NButton>
        <NButton @click="emit('close')">Leave it</NButton>
      </div>
    </template>
  </DialogBox>
</template>

<style scoped>
.counts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
  margin: 12px 0 8px;
}
.counts dt {
  font-size: 12px;
  color: var(--ink-soft);
}
.counts dd {
  margin: 0;
  font-size: 18px;
}
.rows {
  list-style: none;
  padding: 0;
  margin: 8px 0;
  max-height: 260px;
  overflow-y: auto;
}
.rows li {
  display: grid;
  grid-template-columns: 110px 1fr 1.6fr;
  gap: 8px;
  padding: 3px 0;
  border-top: 1px solid var(--line);
}
.acts {
  display: flex;
  gap: 8px;
  margin-top: 12px;
}
@media (max-width: 600px) {
  .rows li {
    grid-template-columns: 1fr;
  }
}
</style>
