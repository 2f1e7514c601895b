<script setup lang="ts">
import { reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { findPeople } from '#contract/people'
import type { PersonRow } from '#contract/people'
import { findPlaces } from '#contract/places'
import { enterCall } from '#contract/requests'
import { call, CallProblem, DialogBox, freshKey, useSession, useUndo } from '#web/kit'
import PickField from '../kit/PickField.vue'
import type { Choice } from '../kit/PickField.vue'

/** Somebody is on the line: caller, place, what is wrong. What is typed stays until it is saved. */
const emit = defineEmits<{ close: [] }>()
const session = useSession()
const router = useRouter()
const said = useUndo()
const DRAFT = 'evrix-call'
const blank = { personId: null as number | null, name: '', phone: '', email: '', placeId: null as number | null, summary: '', description: '' }
const form = reactive({ ...blank, ...(JSON.parse(sessionStorage.getItem(DRAFT) ?? '{}') as Partial<typeof blank>) })
const problem = ref<CallProblem | null>(null)
const person = ref<Choice | null>(null)
const place = ref<Choice | null>(null)
let key = freshKey()
let people: PersonRow[] = []
watch(form, () => sessionStorage.setItem(DRAFT, JSON.stringify(form)))

async function findCaller(q: string): Promise<Choice[]> {
  people = (await call(findPeople, { q, limit: 12 })).rows
  return people.map((one) => ({
    value: one.id,
    label: `${one.name}${one.extension ? `, ext ${one.extension}` : ''}${one.placeName ? `, ${one.placeName}` : ''}`,
  }))
}

async function findWhere(q: string): Promise<Choice[]> {
  return (await call(findPlaces, { q, limit: 12 })).rows.map((one) => ({
    value: one.id,
    label: `${one.code} ${one.name}${one.within ? `, ${one.within}` : ''}`,
  }))
}

function pickCaller(id: number | string | null): void {
  const one = people.find((candidate) => candidate.id === id)
  form.personId = one?.id ?? null
  person.value = one ? { value: one.id, label: one.name } : null
  if (!one) return
  Object.assign(form, { name: one.name, phone: one.phone ?? '', email: one.email ?? '' })
  if (one.placeId && !form.placeId) {
    form.placeId = one.placeId
    place.value = { value: one.placeId, label: one.placeName ?? '' }
  }
}

async function save(thenTriage: boolean): Promise<void> {
  problem.value = null
  try {
    const saved = await call(enterCall, { ...form, placeId: form.placeId!, siteId: session.self!.site.id }, { key })
    Object.assign(form, blank)
    sessionStorage.removeItem(DRAFT)
    person.value = place.value = null
    key = freshKey()
    said.say(`${saved.number} is in Intake.`)
    if (thenTriage) {
      emit('close')
      await router.push(`/desk/intake/request/${saved.id}`)
    } else document.getElementById('call-person')?.focus()
  } catch (error) {
    if (error instanceof CallProblem) problem.value = error
    else throw error
  }
}
</script>

<template>
  <DialogBox title="New call" wide @close="$emit('close')">
    <form class="call" @submit.prevent="save(false)" @keydown.ctrl.enter.prevent="save($event.shiftKey)">
      <h1>New call</h1>
      <PickField
        id="call-person"
        class="full"
        label="Caller: part of name, extension or mail"
        :value="form.personId"
        :find="findCaller"
        :current="person"
        clearable
        @pick="pickCaller"
      />
      <div class="field"><label for="call-name">Name, if not found</label><input id="call-name" v-model="form.name" class="entry" /></div>
      <div class="field"><label for="call-phone">Phone</label><input id="call-phone" v-model="form.phone" class="entry" /></div>
      <PickField
        id="call-place"
        class="full"
        label="Where (needed)"
        :value="form.placeId"
        :find="findWhere"
        :current="place"
        :problem="problem?.at('placeId')"
        @pick="form.placeId = $event as number | null"
      />
      <div class="field full">
        <label for="call-summary">In one line (needed)</label>
        <input id="call-summary" v-model="form.summary" class="entry" maxlength="140" :aria-invalid="!!problem?.at('summary')" />
        <p v-if="problem?.at('summary')" class="problem">{{ problem.at('summary') }}</p>
      </div>
      <div class="field full">
        <label for="call-description">Which one exactly, what it does, since when, seen by whom (needed)</label>
        <textarea id="call-description" v-model="form.description" class="entry" :aria-invalid="!!problem?.at('description')" />
        <p v-if="problem?.at('description')" class="problem">{{ problem.at('description') }}</p>
      </div>
      <p v-if="problem" class="problem full" role="alert">{{ problem.message }}</p>
      <div class="full acts">
        <button class="push first" type="submit">Save for the next call <kbd>Ctrl Enter</kbd></button>
        <button class="push" type="button" @click="save(true)">Save and triage <kbd>Ctrl Shift Enter</kbd></button>
        <button class="push" type="button" @click="$emit('close')">Leave, keep as draft <kbd>Esc</kbd></button>
      </div>
    </form>
  </DialogBox>
</template>

<style scoped>
.call {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
.full {
  grid-column: 1 / -1;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
@media (max-width: 600px) {
  .call {
    grid-template-columns: 1fr;
  }
}
</style>
