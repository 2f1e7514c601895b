<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { ONE_OF } from '#core/registers'
import type { FieldValue, RegisterName } from '#core/registers'
import { call, CallProblem, DialogBox, DraftNote, ListEntry, RecordLink, useFormDraft, useSession, useUndo, useVocabulary } from '#web/kit'
import type { RecordRef } from '#web/kit'
import EntryField from './EntryField.vue'
import { KINDS } from '#contract/portraits'
import type { AnyRecord } from '#contract/portraits'

/** Enters a record: what is needed is in sight, the rest one press away. `given` is what is known already, with what its ids are called. */
const props = defineProps<{ register: RegisterName; given?: Record<string, FieldValue>; called?: Record<string, string> }>()
const emit = defineEmits<{ added: [AnyRecord]; close: [] }>()
const kind = KINDS[props.register]
const one = ONE_OF[props.register]
const session = useSession()
const undo = useUndo()
const words = useVocabulary()
void words.ensure()

const names = Object.keys(kind.fields).filter((name) => !kind.fields[name]!.may || session.can(kind.fields[name]!.may))
/** What new records mostly are. */
const USUAL: Record<string, FieldValue> = { owner: 'us', taxBp: 0 }
const start = Object.fromEntries(names.map((name) => [name, props.given?.[name] ?? (kind.fields[name]!.needed ? (USUAL[name] ?? null) : null)]))
const { form, kept, drop } = useFormDraft<Record<string, FieldValue>>(`add-${props.register}-${Object.values(props.given ?? {}).join('-')}`, {
  ...start,
  siteId: session.self?.site.id ?? null,
})
const called = ref<Record<string, string>>({ ...props.called })
/** A place stands in another, though the form of the site itself has none. */
const first = computed(() =>
  names.filter((name) => kind.fields[name]!.needed || name in (props.given ?? {}) || (props.register === 'places' && name === 'parentId')),
)
const rest = computed(() => names.filter((name) => !first.value.includes(name)))
const all = ref(kept.value)
const problem = ref<CallProblem | null>(null)
const busy = ref(false)
const at = (name: string) => problem.value?.reasons.find((reason) => reason.field === name)?.sentence
const taken = computed(() => problem.value?.reasons.find((reason) => reason.record)?.record as RecordRef | undefined)
const unplaced = computed(
  () => problem.value && !problem.value.reasons.some((reason) => reason.field && [...first.value, ...rest.value].includes(reason.field)),
)

async function add(): Promise<void> {
  if (busy.value) return
  busy.value = true
  problem.value = null
  const { siteId, ...values } = form
  const filled = Object.fromEntries(Object.entries(values).filter(([, value]) => value !== null && value !== ''))
  try {
    const added = await call(kind.add, { ...filled, ...(kind.ofSite && siteId ? { siteId: Number(siteId) } : {}) })
    drop()
    undo.say(`${[added.code, added.heading].filter(Boolean).join(' ')} is entered.`)
    emit('added', added)
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    problem.value = error
    if (error.reasons.some((reason) => reason.field && rest.value.includes(reason.field))) all.value = true
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <DialogBox :title="`New ${one.name}`" wide @close="emit('close')">
    <form class="form" @submit.prevent="add" @keydown.ctrl.enter.prevent="add">
      <h1>New {{ one.name }}</h1>
      <DraftNote :kept="kept" @drop="drop" />
      <div class="grid" data-first>
        <ListEntry
          v-if="kind.ofSite && (words.lists?.sites.length ?? 0) > 1"
          id="add-site"
          v-model="form.siteId as number"
          label="Site"
          :options="(words.lists?.sites ?? []).map((site) => ({ value: site.id, label: site.name }))"
          :problem="at('siteId')"
        />
        <EntryField
          v-for="name in first"
          :id="`add-${name}`"
          :key="name"
          v-model="form[name]!"
          :field="kind.fields[name]!"
          :problem="at(name)"
          :said="called[name]"
          @named="called[name] = $event"
        />
      </div>
      <NButton v-if="rest.length && !all" class="rest" @click="all = true">All that can be said of it</NButton>
      <div v-if="all" class="grid">
        <EntryField
          v-for="name in rest"
          :id="`add-${name}`"
          :key="name"
          v-model="form[name]!"
          :class="{ whole: kind.fields[name]!.wide }"
          :field="kind.fields[name]!"
          :problem="at(name)"
          :said="called[name]"
          @named="called[name] = $event"
        />
      </div>
      <p v-if="unplaced" class="problem" role="alert">{{ problem!.reasons[0]?.sentence ?? problem!.message }}</p>
      <p v-if="taken"><RecordLink :record="taken" @click="emit('close')">Open the one that has it</RecordLink></p>
      <p class="acts">
        <NButton type="primary" attr-type="submit" :loading="busy">Enter it <kbd>Ctrl Enter</kbd></NButton>
        <NButton @click="emit('close')">Leave it</NButton>
      </p>
    </form>
  </DialogBox>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
  max-height: calc(100vh - 130px);
  overflow-y: auto;
  padding: 2px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 220px), 1fr));
  gap: 10px 14px;
}
.whole {
  grid-column: 1 / -1;
}
.rest {
  justify-self: start;
}
.acts {
  display: flex;
  gap: 8px;
}
.problem {
  color: var(--buoy);
}
</style>
