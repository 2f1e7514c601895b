<script setup lang="ts">
import { computed } from 'vue'
import { WRITING_NAMES, WRITINGS } from '#core/kit'
import type { SiteWriting } from '#core/kit'
import { ChoiceEntry, ListEntry, named } from '#web/kit'

/** How the site writes numbers, days and times, with an example of each; kept as soon as it is chosen. */
const props = defineProps<{ writing: SiteWriting; currency: string }>()
const emit = defineEmits<{ save: [SiteWriting] }>()
const set = (change: Partial<SiteWriting>) => emit('save', { ...props.writing, ...change })
const EXAMPLE = new Date(Date.UTC(2026, 3, 5, 14, 30))
const written = computed(() => {
  const { locale, clock } = props.writing
  const day = new Intl.DateTimeFormat(locale, { timeZone: 'UTC', weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' }).format(EXAMPLE)
  const time = new Intl.DateTimeFormat(locale, { timeZone: 'UTC', hour: '2-digit', minute: '2-digit', hour12: clock === 12 }).format(EXAMPLE)
  const amount = new Intl.NumberFormat(locale, { minimumFractionDigits: 2 }).format(1250.5)
  return `${day}, ${time}; ${amount} ${props.currency}`
})
const CLOCKS = [
  { value: '24', label: '14:30' },
  { value: '12', label: '2:30 pm' },
]
const WEEKS = [
  { value: '1', label: 'Monday' },
  { value: '7', label: 'Sunday' },
  { value: '6', label: 'Saturday' },
]
</script>

<template>
  <div class="writing">
    <ListEntry
      id="writing-locale"
      class="place"
      label="As they are written in"
      :model-value="writing.locale"
      :options="named(WRITINGS, WRITING_NAMES)"
      @update:model-value="$event && set({ locale: $event })"
    />
    <ChoiceEntry
      id="writing-clock"
      label="Times of day"
      :model-value="String(writing.clock)"
      :options="CLOCKS"
      @update:model-value="set({ clock: $event === '12' ? 12 : 24 })"
    />
    <ChoiceEntry
      id="writing-week"
      label="A week begins on"
      :model-value="String(writing.weekFrom)"
      :options="WEEKS"
      @update:model-value="set({ weekFrom: Number($event) as SiteWriting['weekFrom'] })"
    />
    <p>
      For example <span class="mono">{{ written }}</span>
    </p>
  </div>
</template>

<style scoped>
.writing {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 20px;
  align-items: end;
}
.place {
  width: 220px;
}
.writing > p {
  flex-basis: 100%;
}
</style>
