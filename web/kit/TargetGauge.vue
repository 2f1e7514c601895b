<script setup lang="ts">
import { computed } from 'vue'
import type { GaugeTarget } from '#contract/kit'
import { spell, spellShort } from './format'
import { useNow } from './now'

/** Time used against time promised. Past the end, a hatch grows back from the right edge. */
const props = defineProps<{ target: GaugeTarget; wide?: boolean; stacked?: boolean }>()
const now = useNow()
const ms = (at: string) => new Date(at).getTime()
const at = computed(() => ((props.target.finishedAt ?? props.target.stoppedAt) ? ms((props.target.finishedAt ?? props.target.stoppedAt)!) : now.value))
const span = computed(() => Math.max(1, ms(props.target.completionDueAt) - ms(props.target.startAt)))
const used = computed(() => (at.value - ms(props.target.startAt)) / span.value)
const notch = computed(() => Math.min(1, (ms(props.target.responseDueAt) - ms(props.target.startAt)) / span.value))
const standing = computed(() => (at.value > ms(props.target.completionDueAt) ? 'past' : at.value >= ms(props.target.closeAt) ? 'close' : 'on_time'))
const minutesOver = computed(() => (at.value - ms(props.target.completionDueAt)) / 60_000)
const over = computed(() => spell(minutesOver.value))
const overShort = computed(() => spellShort(minutesOver.value))
const left = computed(() => spell((ms(props.target.completionDueAt) - at.value) / 60_000))
const says = computed(() => {
  if (props.target.finishedAt) return standing.value === 'past' ? `Finished ${over.value} past target` : 'Finished on time'
  if (props.target.stoppedAt) return standing.value === 'past' ? `Clock stopped, ${over.value} past target` : `Clock stopped with ${left.value} left`
  return standing.value === 'past' ? `${over.value} past target` : `${left.value} to target${standing.value === 'close' ? ', close' : ''}`
})
const fill = computed(() => `${Math.min(100, Math.max(2, used.value * 100))}%`)
const hatch = computed(() => `${Math.min(100, Math.max(14, (used.value - 1) * 100))}%`)
</script>

<template>
  <span class="gauge" :class="{ wide, stacked }" role="img" :aria-label="says" :title="says">
    <span class="trough" :class="[standing, { still: target.stoppedAt && !target.finishedAt }]">
      <span class="fill" :style="{ width: fill }" />
      <span v-if="standing === 'past'" class="hatch" :style="{ width: hatch }" />
      <span v-if="notch < 0.98" class="notch" :style="{ left: `${notch * 100}%` }" />
    </span>
    <span v-if="standing === 'past'" class="over mono">+{{ wide ? over : overShort }}</span>
    <span v-else-if="wide" class="left">{{ target.finishedAt ? 'Finished on time' : `${left} left` }}</span>
  </span>
</template>

<style scoped>
/* In a list troughs stand under each other, and what is past target has its own column. */
.gauge {
  display: inline-grid;
  grid-template-columns: 72px 48px;
  align-items: center;
  gap: 6px;
}
.gauge.wide {
  display: inline-flex;
}
/* In a row of two lines it stands above its trough. */
.gauge.stacked {
  display: block;
  position: relative;
  width: 72px;
}
.stacked .over {
  position: absolute;
  right: 0;
  bottom: 12px;
}
.trough {
  position: relative;
  display: block;
  width: 72px;
  height: 8px;
  border-radius: 2px;
  background: var(--paper);
  box-shadow: inset 0 0 0 1px var(--line-strong);
  overflow: hidden;
  flex: none;
  /* Time is drawn: where the system forces its colours, the drawing keeps ours. */
  forced-color-adjust: none;
}
.wide .trough {
  width: 120px;
  height: 10px;
}
.fill {
  position: absolute;
  inset: 0 auto 0 0;
  background: var(--tide);
}
.close .fill {
  background: var(--sand);
}
.past .fill {
  background: color-mix(in srgb, var(--tide) 38%, var(--sheet));
}
.still .fill {
  background: radial-gradient(circle, var(--tide) 1.3px, transparent 1.6px) 0 0 / 5px 5px;
}
.hatch {
  position: absolute;
  inset: 0 0 0 auto;
  background: repeating-linear-gradient(-45deg, var(--buoy) 0 2px, var(--sheet) 2px 4px);
}
.notch {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 2px;
  margin-left: -1px;
  background: var(--ink);
}
.over {
  color: var(--buoy);
  font-size: 12px;
  white-space: nowrap;
}
.left {
  color: var(--ink-soft);
  font-size: 13px;
}
</style>
