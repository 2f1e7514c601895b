<script setup lang="ts">
import { CalendarDays } from '@lucide/vue'
import { NButton } from 'naive-ui/es/button'
import { NInput } from 'naive-ui/es/input'
import { NPopover } from 'naive-ui/es/popover'
import { computed, defineAsyncComponent, ref, watch } from 'vue'
import { isMonthFirst, readDay, readMoment } from '#core/kit'
import FieldFrame from './FieldFrame.vue'
import { serverNow, toLocalField, writingHere, writtenDay, writtenMoment } from './format'

/** Fetched with the first calendar that is opened: most days are typed. */
const NDatePicker = defineAsyncComponent(() => import('naive-ui/es/date-picker').then((all) => all.NDatePicker))

/**
 * A day, or a day and a time, of the site: typed as people say it ("tomorrow 9", "+3d", "fri 14:30") with what it is
 * understood as shown meanwhile, or taken from a calendar. Its value is the site's wall-clock time,
 * "2026-11-24T14:30", or the day alone, "2026-11-24"; empty for none.
 */
const props = defineProps<{ id: string; label: string; day?: boolean; problem?: string | null; hint?: string; disabled?: boolean; required?: boolean }>()
const value = defineModel<string>({ required: true })
/** The component counts from Monday, which is 0. */
const first = computed(() => (writingHere().weekFrom - 1) as 0 | 5 | 6)
const written = () => (value.value ? (props.day ? writtenDay(value.value) : writtenMoment(value.value)) : '')
const text = ref(written())
const open = ref(false)
const wrong = ref('')
watch(value, () => {
  if (!wrong.value) text.value = written()
})

const read = computed(() => {
  const rules = { now: toLocalField(serverNow()), usual: value.value.slice(11, 16) || undefined, monthFirst: isMonthFirst(writingHere().locale) }
  return props.day ? readDay(text.value, rules) : readMoment(text.value, rules)
})
const meaning = computed(() => {
  if (text.value === written() || 'problem' in read.value) return ''
  const said = read.value.value
  return said ? (props.day ? writtenDay(said) : writtenMoment(said)) : ''
})

/** Takes what is typed. What can mean nothing stays as typed and is no time: the form that is sent has none, rather than the one before. */
function leave(): boolean {
  if (text.value === written()) return true
  const said = read.value
  wrong.value = said.problem ?? (props.required && !said.value ? 'This is needed.' : '')
  if (wrong.value) {
    value.value = ''
    return false
  }
  value.value = said.value ?? ''
  text.value = written()
  return true
}
defineExpose({ leave })

/** The calendar counts in the device's own zone: the wall-clock time goes in and out as it is. */
const stamp = computed(() => (value.value ? new Date(value.value.length > 10 ? value.value : `${value.value}T00:00`).getTime() : null))
function take(picked: number | null): void {
  wrong.value = ''
  if (picked === null) return
  const at = new Date(picked)
  const two = (n: number) => String(n).padStart(2, '0')
  const dayPicked = `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`
  value.value = props.day ? dayPicked : `${dayPicked}T${two(at.getHours())}:${two(at.getMinutes())}`
  if (props.day) open.value = false
}
</script>

<template>
  <FieldFrame :id="id" :label="label" :problem="wrong || problem" :hint="hint">
    <NInput
      v-model:value="text"
      class="mono"
      :placeholder="day ? 'today, fri, +3d, 24 Nov' : '14:30, tomorrow 9, +3d'"
      :disabled="disabled"
      :input-props="{ id, autocomplete: 'off', 'aria-invalid': !!(wrong || problem), 'aria-describedby': meaning ? `${id}-means` : undefined }"
      @blur="leave"
      @keydown.enter="leave"
      @update:value="wrong = ''"
    >
      <template #suffix>
        <NPopover v-model:show="open" trigger="click" raw placement="bottom-end">
          <template #trigger>
            <NButton text :disabled="disabled" :aria-label="`Calendar for ${label}`"><CalendarDays :size="16" /></NButton>
          </template>
          <NDatePicker
            panel
            :type="day ? 'date' : 'datetime'"
            :first-day-of-week="first"
            :value="stamp"
            :actions="null"
            :time-picker-props="{ format: writingHere().clock === 12 ? 'h:mm a' : 'HH:mm' }"
            @update:value="take"
          />
        </NPopover>
      </template>
    </NInput>
    <template v-if="meaning && !wrong" #below
      ><p :id="`${id}-means`" role="status">{{ meaning }}</p></template
    >
  </FieldFrame>
</template>
