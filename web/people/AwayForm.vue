<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed } from 'vue'
import { endAway, listAway, saveAway } from '#contract/people'
import {
  MomentEntry,
  call,
  DialogBox,
  DraftNote,
  fromLocalField,
  serverNow,
  shortTime,
  toLocalField,
  useFormDraft,
  useKeeping,
  useLoading,
  useSession,
  PickField,
  useVocabulary,
} from '#web/kit'

/** Being away: from when, until when, and who decides meanwhile. Everybody at the desk sees it. */
defineEmits<{ close: [] }>()
const session = useSession()
const words = useVocabulary()
void words.ensure()
const away = useLoading(() => call(listAway, {}))
void away.load()
const { problem, keep } = useKeeping(away)
const inDays = (days: number) => toLocalField(new Date(serverNow().getTime() + days * 86_400_000))
const { form, kept, drop } = useFormDraft('away', { accountId: null as number | null, deputyId: null as number | null, from: inDays(0), until: inDays(7) })
const others = session.can('setup.edit')
const mine = computed(() => form.accountId ?? session.self!.accountId)

async function save(): Promise<void> {
  const change = {
    accountId: form.accountId ?? undefined,
    deputyId: form.deputyId ?? 0,
    fromAt: fromLocalField(form.from).toISOString(),
    untilAt: fromLocalField(form.until).toISOString(),
  }
  if (await keep(() => call(saveAway, change), 'It is noted; what comes up meanwhile goes to the deputy too.')) drop()
}
const end = (id: number, name: string) => keep(() => call(endAway, { id }), `${name} decides again.`)
const mayEnd = (accountId: number) => others || accountId === session.self!.accountId
</script>

<template>
  <DialogBox title="Away" @close="$emit('close')">
    <h1>Who is away</h1>
    <ul v-if="away.value.value?.rows.length">
      <li v-for="one in away.value.value.rows" :key="one.id">
        <span
          ><strong>{{ one.name }}</strong
          >{{ one.now ? '' : ` from ${shortTime(one.fromAt)}` }} until {{ shortTime(one.untilAt) }}: {{ one.deputy }} decides.</span
        >
        <NButton v-if="mayEnd(one.accountId)" :aria-label="`${one.name} is back`" @click="end(one.id, one.name)">
          {{ one.now ? 'Back now' : 'Take it out' }}
        </NButton>
      </li>
    </ul>
    <p v-else class="soft">Nobody is away, and nobody will be.</p>
    <form aria-label="Be away" @submit.prevent="save">
      <DraftNote :kept="kept" class="wide" @drop="drop" />
      <PickField
        v-if="others"
        id="away-who"
        label="Who is away"
        :value="mine"
        :choices="words.choices((all) => all.accounts)"
        @pick="form.accountId = $event as number"
      />
      <PickField
        id="away-deputy"
        label="Who decides meanwhile"
        :value="form.deputyId"
        :choices="words.choices((all) => all.accounts.filter((one) => one.id !== mine))"
        :problem="problem?.at('deputyId')"
        @pick="form.deputyId = $event as number"
      />
      <MomentEntry id="away-from" v-model="form.from" label="From" required :problem="problem?.at('fromAt')" />
      <MomentEntry id="away-until" v-model="form.until" label="Until" required :problem="problem?.at('untilAt')" />
      <NButton type="primary" attr-type="submit">Note it</NButton>
      <NButton @click="$emit('close')">Leave <kbd>Esc</kbd></NButton>
    </form>
  </DialogBox>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0 0 12px;
  padding: 0;
}
li {
  display: flex;
  gap: 8px;
  align-items: center;
  justify-content: space-between;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px 12px;
  align-items: end;
}
.wide {
  grid-column: 1 / -1;
}
@media (max-width: 600px) {
  form {
    grid-template-columns: 1fr;
  }
}
</style>
