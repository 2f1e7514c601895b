<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { nameNone, namePrice, readQuotePage } from '#contract/quotes'
import { formatMinor } from '#core/kit'
import {
  call,
  CallProblem,
  dayOf,
  DecimalField,
  freshKey,
  fromLocalField,
  longTime,
  MomentEntry,
  PhonePage,
  ProblemNote,
  shortTime,
  showNumbersOf,
  showTimesOf,
  TextEntry,
  toLocalField,
  useDraft,
  useLoading,
} from '#web/kit'

/** What a vendor is asked a price for, answered on a phone. */
const token = String(useRoute().params.token)
const page = useLoading(async () => {
  const now = await call(readQuotePage, { token })
  showTimesOf({ zone: now.site.zone, ...now.site.writing })
  showNumbersOf({ currency: now.site.currency, ...now.site.writing })
  return now
})
const net = ref<number | null>(null)
const tax = ref<number | null>(1_350)
const earliest = ref('')
const until = ref('')
const note = useDraft(() => `quote-${token.slice(-16)}`)
void page.load().then(() => {
  const now = page.value.value
  if (!now) return
  net.value = now.netMinor
  tax.value = now.taxBp ?? tax.value
  earliest.value = now.earliestAt ? toLocalField(new Date(now.earliestAt)) : ''
  until.value = now.validUntil ?? ''
})
const it = computed(() => page.value.value)
const mode = ref<'price' | 'none' | null>(null)
const asks = computed(() => it.value && !it.value.over && (it.value.state === 'asked' || mode.value))
const busy = ref(false)
const problem = ref<CallProblem | null>(null)
let key = freshKey()
const at = (field: string) => problem.value?.at(field)
const fields = { net: ref<InstanceType<typeof DecimalField> | null>(null), tax: ref<InstanceType<typeof DecimalField> | null>(null) }
const { net: netField, tax: taxField } = fields

async function send(): Promise<void> {
  // Every number is read before anything is sent: none is taken for another.
  if (mode.value !== 'none' && [netField.value?.leave(), taxField.value?.leave()].includes(false)) return
  busy.value = true
  problem.value = null
  try {
    const said = note.value.trim()
    page.value.value =
      mode.value === 'none'
        ? await call(nameNone, { token, note: said }, { key })
        : await call(
            namePrice,
            {
              token,
              netMinor: net.value ?? 0,
              taxBp: tax.value ?? 0,
              earliestAt: earliest.value ? fromLocalField(earliest.value).toISOString() : null,
              validUntil: until.value || null,
              note: said,
            },
            { key },
          )
    note.value = ''
    mode.value = null
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    problem.value = error
    await page.load()
  } finally {
    key = freshKey()
    busy.value = false
  }
}
</script>

<template>
  <PhonePage>
    <header>
      <p v-if="it">{{ it.vendor }} for {{ it.site.name }}</p>
      <h1>Your price</h1>
      <p v-if="it">
        <span class="mono">{{ it.number }}</span><template v-if="it.place">, {{ it.place }}</template>
      </p>
    </header>
    <main>
      <ProblemNote v-if="page.problem.value && !it" :problem="page.problem.value" @retry="page.load" />
      <template v-else-if="it">
        <section class="card" aria-label="What is wanted">
          <h2>What is wanted</h2>
          <p class="text wanted">{{ it.wanted }}</p>
          <p v-if="!it.over" class="label">Answer by {{ longTime(it.dueAt) }}.</p>
        </section>
        <section class="card" aria-label="Your price">
          <h2>What it costs</h2>
          <p v-if="it.netMinor !== null" class="standing" role="status">
            You named <strong>{{ formatMinor(it.netMinor) }} {{ it.site.currency }}</strong> before tax<template v-if="it.earliestAt"
              >, from {{ shortTime(it.earliestAt) }}</template
            ><template v-if="it.validUntil">, until {{ dayOf(it.validUntil) }}</template
            >.
          </p>
          <p v-else-if="it.state === 'declined'" class="standing" role="status">You told us that you name no price.</p>
          <p v-if="it.over" class="label">{{ it.over }}</p>
          <p v-if="problem?.apart" class="problem" role="alert">{{ problem.apart }}</p>
          <form v-if="asks" @submit.prevent="send">
            <template v-if="mode !== 'none'">
              <DecimalField
                id="quote-net"
                ref="netField"
                :label="`Price before tax, ${it.site.currency}`"
                kind="money"
                required
                :value="net"
                :problem="at('netMinor')"
                @save="net = $event as number"
              />
              <DecimalField
                id="quote-tax"
                ref="taxField"
                label="Tax in %"
                kind="percent"
                required
                :value="tax"
                :problem="at('taxBp')"
                @save="tax = $event as number"
              />
              <MomentEntry id="quote-earliest" v-model="earliest" label="When you could begin" :problem="at('earliestAt')" />
              <MomentEntry id="quote-until" v-model="until" day label="Until when the price stands" :problem="at('validUntil')" />
            </template>
            <TextEntry
              id="quote-note"
              v-model="note"
              :label="mode === 'none' ? 'Why not' : 'What it covers, and what it does not'"
              :max="mode === 'none' ? 300 : 1000"
              long
              :problem="at('note')"
            />
            <div class="acts">
              <NButton type="primary" attr-type="submit" :disabled="busy || (mode === 'none' && !note.trim())">{{
                mode === 'none' ? 'Tell the desk' : 'Send the price'
              }}</NButton>
              <NButton v-if="mode !== 'none'" @click="mode = 'none'">We name none</NButton>
              <NButton v-else @click="mode = null">Back to the price</NButton>
            </div>
          </form>
          <NButton v-else-if="!it.over" @click="mode = 'price'">{{ it.netMinor === null ? 'Name one after all' : 'Change the price' }}</NButton>
        </section>
        <p class="label">
          This link is yours alone. Questions: <a :href="`tel:${it.site.deskPhone.replace(/ /g, '')}`">{{ it.site.deskPhone }}</a>
        </p>
      </template>
      <div v-else class="bones wait" />
    </main>
  </PhonePage>
</template>

<style scoped>
.wanted {
  white-space: pre-line;
}
.standing {
  padding: 10px 14px;
  border-left: 6px solid var(--tide);
  background: var(--shoal-faint);
}
form {
  display: grid;
  gap: 10px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
