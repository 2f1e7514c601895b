<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { decideApprovalByLink, readApproval, readApprovalPicture } from '#contract/approvals'
import type { LinkVerdict } from '#contract/approvals'
import { formatMinor } from '#core/kit'
import { listApprovalDocuments, readApprovalDocument } from '#contract/documents'
import { SharedDocuments } from '#web/documents'
import { TextEntry, PhonePage, address, call, CallProblem, freshKey, longTime, ProblemNote, useDraft, useLoading } from '#web/kit'

/** Deciding from a mail, on a phone. Opening the page decides nothing: every verdict is confirmed. */
const token = String(useRoute().params.token)
const page = useLoading(() => call(readApproval, { token }))
void page.load()
const it = computed(() => page.value.value)
const choosing = ref<LinkVerdict | null>(null)
const note = useDraft(() => `approval-${token.slice(-16)}-${choosing.value ?? 'none'}`)
const busy = ref(false)
const problem = ref<CallProblem | null>(null)
const asked = ref(false)
let key = freshKey()

const WORDS: Record<LinkVerdict, { press: string; label: string; needed: boolean }> = {
  approve: { press: 'Yes, approve it', label: 'A note for the desk, if you like', needed: false },
  send_back: { press: 'Send it back', label: 'What has to change', needed: true },
  ask: { press: 'Ask the desk', label: 'What you would like to know', needed: true },
}
function choose(verdict: LinkVerdict): void {
  choosing.value = verdict
  problem.value = null
  asked.value = false
  key = freshKey()
}
async function decide(): Promise<void> {
  busy.value = true
  problem.value = null
  try {
    page.value.value = await call(decideApprovalByLink, { token, version: it.value!.version, verdict: choosing.value!, note: note.value }, { key })
    asked.value = choosing.value === 'ask'
    note.value = ''
    choosing.value = null
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    problem.value = error
    // It was changed while being read: show it as it is now, before anything is decided.
    if (error.problem.status === 409) {
      choosing.value = null
      await page.load()
    }
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <PhonePage>
    <header>
      <p v-if="it">{{ it.site.name }}</p>
      <h1>{{ it?.summary ?? 'To approve' }}</h1>
      <p v-if="it">
        <span class="mono">{{ it.number }}</span>
      </p>
    </header>
    <main>
      <ProblemNote v-if="page.problem.value && !it" :problem="page.problem.value" @retry="page.load" />
      <template v-else-if="it">
        <section class="card" aria-label="What is asked">
          <p class="amount">
            <span class="mono">{{ formatMinor(it.estimateMinor) }}</span> {{ it.currency }}
          </p>
          <p v-for="share in it.shares" :key="share.code">{{ share.code }} {{ share.name }} pays {{ share.shareBp / 100 }} %</p>
          <p class="text">{{ it.description }}</p>
          <p v-if="it.place">{{ it.place }}</p>
          <p class="label">{{ it.prioritySentence ?? it.priority }}</p>
          <p class="label">{{ it.askedBy ? `${it.askedBy} asked` : 'Asked' }} {{ longTime(it.askedAt) }}</p>
          <div v-if="it.pictures.length" class="thumbs">
            <a v-for="one in it.pictures" :key="one.id" :href="address(readApprovalPicture, { token, id: one.id })" target="_blank"
              ><img :src="address(readApprovalPicture, { token, id: one.id })" :alt="one.name"
            /></a>
          </div>
        </section>
        <SharedDocuments :read="() => call(listApprovalDocuments, { token })" :url-of="(fileId) => address(readApprovalDocument, { token, fileId })" />
        <p v-if="it.over" class="card" role="status">
          <strong>{{ it.over }}</strong>
        </p>
        <section v-else class="card" aria-label="Your decision">
          <p>
            {{ it.person }}, this link is yours alone<template v-if="it.actingFor">; you decide for {{ it.actingFor }}, whose limit covers it</template>.
          </p>
          <p v-if="asked" role="status">The desk has your question. This link still works.</p>
          <p v-if="problem && problem.problem.status === 409" class="problem" role="alert">It was changed while you read. Read it again before you decide.</p>
          <form v-if="choosing" class="decide" @submit.prevent="decide">
            <p v-if="choosing === 'approve'">
              Approve <span class="mono">{{ formatMinor(it.estimateMinor) }}</span> {{ it.currency }} for {{ it.number }}?
            </p>
            <TextEntry id="note" v-model="note" long :label="WORDS[choosing].label" :max="2000" :problem="problem?.reasons[0]?.sentence ?? problem?.message" />
            <NButton type="primary" attr-type="submit" :disabled="busy || (WORDS[choosing].needed && !note.trim())">{{ WORDS[choosing].press }}</NButton>
            <NButton @click="choosing = null">Not yet</NButton>
          </form>
          <div v-else class="decide">
            <NButton type="primary" @click="choose('approve')">Approve</NButton>
            <NButton @click="choose('send_back')">Send back</NButton>
            <NButton @click="choose('ask')">Ask a question</NButton>
          </div>
        </section>
        <p class="label">
          This link works once, until {{ longTime(it.expiresAt) }}. Questions:
          <a :href="`tel:${it.site.deskPhone.replace(/ /g, '')}`">{{ it.site.deskPhone }}</a>
        </p>
      </template>
      <div v-else class="bones wait" />
    </main>
  </PhonePage>
</template>

<style scoped>
.amount {
  font-size: 22px;
}
.decide {
  display: grid;
  gap: 10px;
}
</style>
