<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { saveBulletin } from '#contract/help'
import type { BulletinRow, HelpSheet } from '#contract/help'
import type { BulletinKind } from '#core/help'
import type { Vocabulary } from '#contract/people'
import {
  rowsNamed,
  named,
  MomentEntry,
  ListEntry,
  ChoiceEntry,
  TextEntry,
  call,
  DraftNote,
  fromLocalField,
  serverNow,
  toLocalField,
  useFormDraft,
  PickField,
  placeChoices,
} from '#web/kit'
import type { CallProblem } from '#web/kit'
import { BULLETIN_KINDS } from './kinds'
import RichTextField from './RichTextField.vue'

/** A notice: what is closed, worked on or held, where, from when to when. */
const props = defineProps<{
  bulletin: BulletinRow | null
  sites: Vocabulary['sites']
  problem: CallProblem | null
  keep: (change: () => Promise<HelpSheet>, done: string) => Promise<boolean>
}>()
const emit = defineEmits<{ leave: [] }>()
const hour = 3_600_000
const { form, kept, drop } = useFormDraft(`notice-${props.bulletin?.id ?? 'new'}-${props.bulletin?.version ?? 0}`, {
  siteId: props.bulletin?.siteId ?? props.sites[0]!.id,
  kind: (props.bulletin?.kind ?? 'closure') as BulletinKind,
  title: props.bulletin?.title ?? '',
  body: props.bulletin?.body ?? '',
  startsAt: toLocalField(props.bulletin ? new Date(props.bulletin.startsAt) : serverNow()),
  endsAt: toLocalField(props.bulletin ? new Date(props.bulletin.endsAt) : new Date(serverNow().getTime() + 8 * hour)),
  places: [...(props.bulletin?.places ?? [])].map((place) => ({ id: place.id, label: `${place.name} (${place.code})` })),
})
const mine = ref(false)
const at = (field: string) => (mine.value ? props.problem?.at(field) : undefined)
let seen: { value: number | string; label: string }[] = []

async function find(text: string) {
  seen = await placeChoices(text)
  return seen
}
function addPlace(id: number | string | null): void {
  const place = seen.find((one) => one.value === id)
  if (place && !form.places.some((one) => one.id === id)) form.places.push({ id: Number(place.value), label: place.label })
}
const instant = (local: string) => (local ? fromLocalField(local).toISOString() : '')
const entry = (withdrawn: boolean) => ({
  ...(props.bulletin ? { id: props.bulletin.id, version: props.bulletin.version } : {}),
  siteId: form.siteId,
  kind: form.kind,
  title: form.title,
  body: form.body,
  startsAt: instant(form.startsAt),
  endsAt: instant(form.endsAt),
  placeIds: form.places.map((one) => one.id),
  withdrawn,
})
async function save(withdrawn: boolean): Promise<void> {
  mine.value = true
  const done = withdrawn ? 'The notice is withdrawn; nobody sees it from now on.' : 'The notice is saved; those places show it.'
  if (await props.keep(() => call(saveBulletin, entry(withdrawn)), done)) leave()
}
function leave(): void {
  drop()
  emit('leave')
}
</script>

<template>
  <form class="form" aria-label="Notice" @submit.prevent="save(false)">
    <DraftNote :kept="kept" @drop="drop" />
    <div class="grid">
      <TextEntry id="notice-title" v-model="form.title" label="Title" :max="140" :problem="at('title')" class="wide" />
      <ChoiceEntry id="notice-kind" v-model="form.kind" label="Kind" :options="named(Object.keys(BULLETIN_KINDS) as BulletinKind[], BULLETIN_KINDS)" />
      <ListEntry id="notice-site" v-model="form.siteId" label="Site" :disabled="!!bulletin" :options="rowsNamed(sites)" />
      <MomentEntry id="notice-from" v-model="form.startsAt" label="From" :problem="at('startsAt')" />
      <MomentEntry id="notice-to" v-model="form.endsAt" label="To" :problem="at('endsAt')" />
      <div class="wide">
        <PickField id="notice-place" label="Places it covers, with all that is in them" :value="null" :find="find" :problem="at('placeIds')" @pick="addPlace" />
        <ul v-if="form.places.length" class="chips" aria-label="Places covered">
          <li v-for="(place, index) in form.places" :key="place.id">
            {{ place.label }} <NButton :aria-label="`Take out ${place.label}`" @click="form.places.splice(index, 1)">Take out</NButton>
          </li>
        </ul>
      </div>
    </div>
    <RichTextField id="notice-body" v-model="form.body" label="What people should know" />
    <p class="acts">
      <NButton type="primary" attr-type="submit">Save</NButton>
      <NButton v-if="bulletin && !bulletin.withdrawn" @click="save(true)">Withdraw</NButton>
      <NButton @click="leave">Leave it as it was</NButton>
    </p>
  </form>
</template>

<style scoped src="./form.css"></style>
