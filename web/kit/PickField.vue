<script setup lang="ts">
import { NSelect } from 'naive-ui/es/select'
import { computed, onMounted, onUpdated, ref, watch } from 'vue'
import { useFresh } from './fresh'
import FieldFrame from './FieldFrame.vue'
import FreshMark from './FreshMark.vue'
import { useSoon } from './soon'
import { typeFirst } from './typeFirst'

/** A type, not an interface: the select takes any object with these. */
export type Choice = { value: number | string; label: string; disabled?: boolean }

/** Choosing one thing by typing part of it: from a short list, or found on the server while typing. */
const props = defineProps<{
  id: string
  label: string
  labelHidden?: boolean
  value: number | string | null
  choices?: Choice[]
  find?: (text: string) => Promise<Choice[]>
  current?: Choice | null
  placeholder?: string
  disabled?: boolean
  problem?: string
  clearable?: boolean
  /** Nothing is proposed before something is typed: what is chosen here cannot be chosen by mistake. */
  onlyTyped?: boolean
}>()
const emit = defineEmits<{
  pick: [value: number | string | null, label: string]
  typed: [text: string]
  /** While typing: what nothing was found for, or nothing; what is offered for it stands before the field is left. */
  unfound: [text: string]
}>()
const fresh = useFresh(() => props.id.replace(/^f-/, ''))
const found = ref<Choice[]>([])
const busy = ref(false)
const asked = ref('')

const options = computed(() => {
  if (!props.find) return props.choices ?? []
  // Enter must never take a line of an older search.
  if (busy.value) return []
  const current = props.current && !found.value.some((one) => one.value === props.current!.value) ? [props.current] : []
  return [...found.value, ...current]
})
const look = useSoon(async () => {
  if (!props.find) return
  const text = asked.value
  const rows = props.onlyTyped && text.trim().length < 2 ? [] : await props.find(text)
  if (text === asked.value) {
    found.value = rows
    emit('unfound', rows.length ? '' : text.trim())
  }
  busy.value = false
}, 120)
function search(text: string): void {
  asked.value = text
  busy.value = true
  look()
}
watch(
  () => props.value,
  () => (busy.value = false),
)

/** What was typed and is none of the choices is not thrown away: whoever asked may keep it. */
function left(): void {
  if (asked.value.trim() && props.value === null) emit('typed', asked.value.trim())
  asked.value = ''
}

const root = ref<HTMLElement | null>(null)
const mend = () => typeFirst(root.value)
onMounted(mend)
onUpdated(mend)
</script>

<template>
  <div ref="root" class="pick" @focusin="fresh.seen">
    <FieldFrame :id="id" :label="label" :label-hidden="labelHidden" :problem="problem"
      ><template #mark><FreshMark :by="fresh.by.value" /></template>
      <NSelect
        :value="value"
        :options="options"
        filterable
        :remote="!!find"
        :loading="busy"
        :clearable="clearable"
        :disabled="disabled"
        :placeholder="placeholder ?? 'Type to find'"
        :input-props="{ id, 'aria-label': label, autocomplete: 'off' }"
        :status="problem ? 'error' : undefined"
        :show-checkmark="false"
        @search="search"
        @blur="left"
        @focus="find && !found.length && search('')"
        @update:value="(picked: number | string | null) => emit('pick', picked, options.find((one) => one.value === picked)?.label ?? '')"
      >
        <template #empty>
          <span v-if="busy" class="soft">Looking for “{{ asked.trim() }}” …</span>
          <span v-else-if="!asked.trim()" class="soft">Type part of its name, number or code.</span>
          <span v-else class="soft">Nothing is called “{{ asked.trim() }}”. Fewer letters, or another part of its name, may find it.</span>
        </template>
      </NSelect>
    </FieldFrame>
  </div>
</template>
