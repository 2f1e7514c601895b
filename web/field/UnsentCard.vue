<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { tellUnsent } from '#contract/field'
import { useCarrying } from '#web/devices'
import type { Act } from '#web/devices'
import { call, CallProblem, fromLocalField, shortTime, TextEntry, timeIn, toLocalField } from '#web/kit'

/** What waits on this phone to be sent, and what was not taken: both sides, and the ways on. */
const props = defineProps<{
  /** Of one job; without it, of all. */
  visitId?: number
  numberOf?: (visitId: number) => string | undefined
  /** What waits is counted, and shown when asked for. */
  folded?: boolean
}>()
const unfolded = ref(!props.folded)
const carrying = useCarrying()
const mine = computed(() => carrying.acts.filter(({ body }) => props.visitId === undefined || body.visitId === props.visitId))
const refused = computed(() => mine.value.filter(({ body }) => body.problem))
const waiting = computed(() => mine.value.filter(({ body }) => !body.problem))
const sentenceOf = ({ body: { problem } }: Act) => problem?.reasons?.[0]?.sentence ?? problem?.detail ?? ''
const busy = ref(false)
const wrong = ref('')
/** Whose moment is being put right. */
const moving = ref<number | null>(null)
const clock = ref('')

async function run(work: () => Promise<unknown>): Promise<void> {
  busy.value = true
  wrong.value = ''
  try {
    await work()
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    wrong.value = error.reasons[0]?.sentence ?? error.message
  } finally {
    busy.value = false
  }
}
/** What is not in stock any more when it is heard of, can be asked for instead. */
const isOutOfStock = ({ body }: Act) => body.name === 'part' && body.problem?.reasons?.some(({ code }) => code === 'not_in_stock')
function askInstead(act: Act): Promise<void> {
  const { input, visitId, at, shown } = act.body as Extract<Act['body'], { name: 'part' }>
  return run(() => carrying.retry(act, { name: 'partAsk', visitId, at, shown, input: { partId: input.partId, quantity: input.quantity } }))
}
function move(act: Act): void {
  moving.value = act.seq
  clock.value = toLocalField(new Date(act.body.at)).slice(11)
}
function moved(act: Act): Promise<void> | void {
  const typed = timeIn(clock.value)
  if (!typed) return void (wrong.value = 'Write a time like 16:30.')
  const day = toLocalField(new Date(act.body.at)).slice(0, 10)
  const at = fromLocalField(`${day}T${typed}`).toISOString()
  return run(async () => {
    await carrying.retry(act, { ...act.body, at })
    moving.value = null
  })
}
/** It goes only once the desk knows of it in words. */
const leave = (act: Act) =>
  run(async () => {
    const { visitId, at } = act.body
    // What was reported on the way hangs on no job the desk could read it at.
    if (visitId < 0) return carrying.leave(act)
    await call(
      tellUnsent,
      { visitId, happenedAt: at, what: carrying.says(act.body), why: sentenceOf(act).slice(0, 300) },
      { key: act.key.replace(/^../, 'un') },
    )
    await carrying.leave(act)
    await carrying.flush()
  })
</script>

<template>
  <section v-if="mine.length" class="card" aria-label="Not sent yet">
    <template v-if="refused.length">
      <h2>Not taken</h2>
      <p class="label">What you recorded is kept on this phone until you say what to do with it.</p>
      <article v-for="act in refused" :key="act.seq">
        <dl>
          <dt>You</dt>
          <dd>
            <span class="mono">{{ shortTime(act.body.at) }}</span> {{ carrying.says(act.body) }}
            <span v-if="numberOf" class="mono label">{{ numberOf(act.body.visitId) }}</span>
          </dd>
          <dt>The desk</dt>
          <dd>{{ sentenceOf(act) }}</dd>
        </dl>
        <form v-if="moving === act.seq" class="ways" @submit.prevent="moved(act)">
          <TextEntry :id="`moved-${act.seq}`" v-model="clock" label="When it was" mono inputmode="numeric" />
          <NButton type="primary" attr-type="submit" :disabled="busy">Send it with this time</NButton>
          <NButton @click="moving = null">Back</NButton>
        </form>
        <div v-else class="ways">
          <NButton v-if="isOutOfStock(act)" type="primary" :disabled="busy" @click="askInstead(act)">Ask for it to be bought</NButton>
          <NButton :disabled="busy" @click="run(() => carrying.retry(act))">Send it again</NButton>
          <NButton :disabled="busy" @click="move(act)">It was at another time</NButton>
          <NButton :disabled="busy" @click="leave(act)">{{ act.body.visitId < 0 ? 'Leave it out' : 'Leave it out and tell the desk' }}</NButton>
        </div>
      </article>
      <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
    </template>
    <template v-if="waiting.length">
      <h2>
        Waits on this phone <span class="label">{{ waiting.length }}</span>
        <NButton v-if="folded" text type="primary" :aria-expanded="unfolded" @click="unfolded = !unfolded">{{ unfolded ? 'Fold' : 'Show' }}</NButton>
      </h2>
      <ol v-if="unfolded">
        <li v-for="act in waiting" :key="act.seq">
          <span class="mono">{{ shortTime(act.body.at) }}</span> {{ carrying.says(act.body) }}
          <span v-if="numberOf" class="mono label">{{ numberOf(act.body.visitId) }}</span>
        </li>
      </ol>
    </template>
  </section>
</template>

<style scoped>
h2 .n-button {
  float: right;
}
article {
  display: grid;
  gap: 8px;
  padding: 8px 0;
  border-top: 1px solid var(--line);
}
dl {
  margin: 0;
  display: grid;
  grid-template-columns: 84px minmax(0, 1fr);
  gap: 4px 10px;
}
dt {
  color: var(--ink-soft);
  font-size: 14px;
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
.ways {
  display: grid;
  gap: 8px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
li {
  overflow-wrap: anywhere;
}
</style>
