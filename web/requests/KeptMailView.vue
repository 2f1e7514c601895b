<script setup lang="ts">
import { useRouter } from 'vue-router'
import { listKeptMail, takeKeptMail } from '#contract/requests'
import { call, CallProblem, ProblemNote, shortTime, useLoading, useUndo } from '#web/kit'

/** Mail that made no request, with the reason: the desk may see it otherwise. */
const mails = useLoading(() => call(listKeptMail, {}))
void mails.load()
const router = useRouter()
const said = useUndo()

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
            <td><button class="push" type="button" @click="take(mail.id)">Make it a request</button></td>
          </tr>
        </tbody>
      </table>
      <p v-else class="soft">Every mail became a request or joined its conversation. Automatic replies, bounces and what cannot be read are kept here.</p>
    </section>
    <div v-else class="bones wait" />
  </div>
</template>

<style scoped src="../kit/page.css"></style>
