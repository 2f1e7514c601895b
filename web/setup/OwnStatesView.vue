<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, reactive, ref } from 'vue'
import { addOwnState, editOwnState, listOwnStates } from '#contract/orders'
import type { OwnStateRow } from '#contract/orders'
import { counted } from '#core/kit'
import { ORDER_STATE_NAMES, OWN_MARK_NAMES, OWN_MARKS, OWN_STATE_UNDER } from '#core/orders'
import type { OrderState, OwnMark } from '#core/orders'
import { call, CallProblem, ListEntry, LoadedPart, named, OwnMark as Mark, rowsNamed, TextEntry, useRead, useUndo, useVocabulary } from '#web/kit'
import SetupTabs from './SetupTabs.vue'

/** States a site adds under ours: they say more exactly how an order stands, and change no rule. */
const words = useVocabulary()
const undo = useUndo()
const siteId = ref<number | null>(null)
void words.ensure().then(() => (siteId.value = words.lists?.sites[0]?.id ?? null))
const read = useRead(listOwnStates, {}, { touchedBy: ({ kind }) => kind === 'order.ownStates' })
const rows = computed(() => (read.value.value?.rows ?? []).filter((row) => row.siteId === siteId.value))
const groups = computed(() =>
  OWN_STATE_UNDER.map((under) => ({ under, rows: rows.value.filter((row) => row.under === under) })).filter((group) => group.rows.length),
)
const form = reactive({ under: 'on_hold' as OrderState, name: '', mark: 'ring' as OwnMark })
const renaming = ref<{ id: number; name: string; mark: OwnMark } | null>(null)
const problem = ref<CallProblem | null>(null)
const busy = ref(false)

async function act(send: () => Promise<{ rows: OwnStateRow[] }>, sentence: string, back?: () => Promise<unknown>): Promise<boolean> {
  busy.value = true
  problem.value = null
  try {
    read.value.value = await send()
    void words.reload()
    undo.say(sentence, back)
    return true
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    problem.value = error
    return false
  } finally {
    busy.value = false
  }
}
async function add(): Promise<void> {
  const { under, name, mark } = form
  if (await act(() => call(addOwnState, { siteId: siteId.value!, under, name, mark }), `${name} was added.`)) form.name = ''
}
async function rename(row: OwnStateRow): Promise<void> {
  const { name, mark } = renaming.value!
  if (await act(() => call(editOwnState, { id: row.id, version: row.version, name, mark }), `It is called ${name} now.`)) renaming.value = null
}
const turn = (row: OwnStateRow) =>
  act(
    () => call(editOwnState, { id: row.id, version: row.version, retired: !row.retired }),
    row.retired ? `${row.name} is in use again.` : `${row.name} is out of use.`,
  )
const markOptions = named(OWN_MARKS, OWN_MARK_NAMES)
</script>

<template>
  <div class="page">
    <header>
      <h1>Setup</h1>
      <SetupTabs />
    </header>
    <section aria-label="Own states">
      <h2>Own states</h2>
      <p class="soft">
        Under a state of ours a site can say more exactly how an order stands, such as waiting for keys. It is offered where a move leads there and in the head
        of the order, filtered and counted in lists, and left behind by the next move.
      </p>
      <ListEntry
        v-if="(words.lists?.sites.length ?? 0) > 1"
        id="own-state-site"
        v-model="siteId"
        class="site"
        label="Site"
        :options="rowsNamed(words.lists?.sites)"
      />
      <LoadedPart :part="read">
        <p v-if="!groups.length" class="soft">There are none at this site yet.</p>
        <div v-for="group in groups" :key="group.under" class="group">
          <h3>{{ ORDER_STATE_NAMES[group.under] }}</h3>
          <ul :aria-label="`Under ${ORDER_STATE_NAMES[group.under]}`">
            <li v-for="row in group.rows" :key="row.id" :class="{ away: row.retired }">
              <form v-if="renaming?.id === row.id" class="line" @submit.prevent="rename(row)">
                <TextEntry id="own-state-rename" v-model="renaming.name" label="Name" label-hidden :max="40" :problem="problem?.at('name')" />
                <ListEntry id="own-state-remark" v-model="renaming.mark" label="Mark" label-hidden :options="markOptions" />
                <NButton size="small" type="primary" attr-type="submit" :disabled="busy">Keep</NButton>
                <NButton size="small" @click="renaming = null">Leave it</NButton>
              </form>
              <template v-else>
                <span class="name"><Mark :mark="row.mark" /> {{ row.name }}</span>
                <span class="soft">{{ row.retired ? 'Out of use' : row.orders ? counted(row.orders, 'order') : 'No order' }}</span>
                <NButton v-if="!row.retired" size="tiny" @click="((problem = null), (renaming = { id: row.id, name: row.name, mark: row.mark }))"
                  >Change</NButton
                >
                <NButton size="tiny" :disabled="busy" @click="turn(row)">{{ row.retired ? 'Use it again' : 'Take out of use' }}</NButton>
              </template>
            </li>
          </ul>
        </div>
      </LoadedPart>
      <form class="line add" aria-label="Add an own state" @submit.prevent="add">
        <ListEntry id="own-state-under" v-model="form.under" label="Under" :options="named(OWN_STATE_UNDER, ORDER_STATE_NAMES)" />
        <TextEntry
          id="own-state-name"
          v-model="form.name"
          label="Name"
          :max="40"
          placeholder="Waiting for keys"
          :problem="renaming ? undefined : problem?.at('name')"
        />
        <ListEntry id="own-state-mark" v-model="form.mark" label="Mark" :options="markOptions" />
        <NButton type="primary" attr-type="submit" :disabled="busy || !form.name.trim() || !siteId">Add it</NButton>
      </form>
      <p v-if="problem && !problem.at('name')" class="problem" role="alert">{{ problem.reasons[0]?.sentence ?? problem.message }}</p>
    </section>
  </div>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
h2 {
  font-size: 16px;
}
h3 {
  font-size: 13px;
  margin-top: 12px;
}
.site {
  width: 280px;
  margin: 8px 0;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  max-width: 720px;
}
li {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
}
.name {
  flex: 1;
}
.away .name {
  color: var(--ink-soft);
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: end;
}
.add {
  margin-top: 16px;
}
</style>
