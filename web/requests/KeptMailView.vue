<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { nextTick, ref } from 'vue'
import { useRouter } from 'vue-router'
import { dismissMail, listKeptMail, takeKeptMail } from '#contract/requests'
import { TextEntry, call, CallProblem, ProblemNote, shortTime, useRead, useUndo } from '#web/kit'
import WholeMail from './WholeMail.vue'

/** Mail that made no request, with the reason: the desk may see it otherwise. */
const mails = useRead(listKeptMail, {}, { touchedBy: () => true })
const router = useRouter()
const said = useUndo()
const dismissing = ref<number | null>(null)
const reason = ref('')
function begin(id: number): void {
  dismissing.value = id
  void nextTick(() => document.getElementById(`why-${id}`)?.focus())
}
async function dismiss(id: number): Promise<void> {
  try {
    mails.value.value = await call(dismissMail, { id, reason: reason.value })
    dismissing.value = null
    reason.value = ''
    said.say('It is dismissed, and kept with your reason.')
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    said.say(error.reasons[0]?.sentence ?? error.message, undefined, true)
    if (error.problem.status !== 400) await mails.load()
  }
}

async function take(id: number): Promise<void> {
  try {
    const { requestId, number } = await call(takeKeptMail, { id })
    said.say(`${number} is in Intake.`)
    await router.push(`/desk/intake/request/${requestId}`)
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    said.say(error.reasons[0]?.sentence ?? error.message, undefined, true)
    await mails.load()
  }
}
</script>

<template>
  <div class="page">
    <header><h1>Mail that made no request</h1></header>
    <ProblemNote v-if="mails.problem.value && !mails.value.value" :problem="mails.problem.value" @retry="mails.load" />
    <section v-else-if="mails.value.value" aria-label="Mail">
      <table v-if="mails.value.value.rows.length" class="plain-table">
        <thead>
          <tr>
            <th>Received</th>
            <th>From</th>
            <th>Subject</th>
            <th>Why it made no request</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="mail in mails.value.value.rows" :key="mail.id">
            <td class="mono">{{ shortTime(mail.receivedAt) }}</td>
            <td>{{ mail.sender || 'nobody' }}</td>
            <td>{{ mail.subject ?? 'none' }}</td>
            <td>{{ mail.reason }}</td>
            <td class="acts">
              <WholeMail :id="mail.id" label="Read it" />
              <NButton type="primary" @click="take(mail.id)">Make it a request</NButton>
              <NButton v-if="dismissing !== mail.id" @click="begin(mail.id)">Dismiss …</NButton>
              <form v-else class="dismiss" @submit.prevent="dismiss(mail.id)">
                <TextEntry :id="`why-${mail.id}`" v-model="reason" label="Why nothing is to be made of it" :max="300" required />
                <NButton type="primary" attr-type="submit">Dismiss it</NButton> <NButton @click="dismissing = null">Leave it</NButton>
              </form>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-else class="soft">Every mail became a request or joined its conversation. Automatic replies, bounces and what cannot be read are kept here.</p>
    </section>
    <div v-else class="bones wait" />
  </div>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.acts,
.dismiss {
  display: grid;
  gap: 6px;
  justify-items: start;
  min-width: 220px;
}
td {
  vertical-align: top;
}
</style>
