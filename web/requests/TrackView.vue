<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { onUnmounted, ref } from 'vue'
import { useRoute } from 'vue-router'
import { answerQuestion, confirmFollow, readTrackedFile, sayFixed, sayNotFixed, trackRequest, uploadTrackedFile, writeAsReporter } from '#contract/requests'
import type { KeptFile, TrackedRequest } from '#contract/requests'
import { listTrackedDocuments, readTrackedDocument } from '#contract/documents'
import { SharedDocuments } from '#web/documents'
import { TextEntry, PhonePage, address, call, CallProblem, longTime, ProblemNote, useDraft, useLoading } from '#web/kit'
import { TrackedTimes } from '#web/windows'
import FilesField from './FilesField.vue'

/** The reporter's private page: where it stands, in their words, and how to say more. */
const token = String(useRoute().params.token)
const tracked = useLoading(() => call(trackRequest, { token }))
void tracked.load()
const often = setInterval(() => void tracked.load(), 30_000)
onUnmounted(() => clearInterval(often))
const answer = useDraft(() => `answer-${token}`)
const message = useDraft(() => `message-${token}`)
const files = ref<KeptFile[]>([])
const open = ref<'message' | 'not_fixed' | null>(null)
const wrong = ref('')
const busy = ref(false)

async function send(run: () => Promise<TrackedRequest>): Promise<void> {
  wrong.value = ''
  busy.value = true
  try {
    tracked.value.value = await run()
    answer.value = message.value = ''
    files.value = []
    open.value = null
  } catch (error) {
    wrong.value = error instanceof CallProblem ? (error.reasons[0]?.sentence ?? error.message) : 'It was not sent. Try again.'
  } finally {
    busy.value = false
  }
}
const upload = (file: Blob, name: string) => call(uploadTrackedFile, { token, name }, { file })
</script>

<template>
  <PhonePage>
    <header>
      <h1>{{ tracked.value.value?.site.name ?? 'Your request' }}</h1>
    </header>
    <main>
      <ProblemNote v-if="tracked.problem.value && !tracked.value.value" :problem="tracked.problem.value" @retry="tracked.load" />
      <template v-else-if="tracked.value.value">
        <div class="card">
          <p class="label mono">{{ tracked.value.value.number }}</p>
          <h2>{{ tracked.value.value.summary }}</h2>
          <p class="standing" role="status">{{ tracked.value.value.progress.sentence }}</p>
          <template v-if="tracked.value.value.toConfirm">
            <p>Somebody asked us to tell this address how it goes. If it was you, say so; nothing more is sent to it otherwise.</p>
            <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
            <NButton type="primary" :disabled="busy" @click="send(() => call(confirmFollow, { token }))">Yes, tell me how it goes</NButton>
          </template>
          <form v-if="tracked.value.value.mayAnswer" class="card" @submit.prevent="send(() => call(answerQuestion, { token, answer }))">
            <TextEntry id="answer" v-model="answer" label="Your answer" long :max="2000" required />
            <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
            <NButton type="primary" attr-type="submit" :disabled="busy">Send the answer</NButton>
          </form>
          <NButton v-if="tracked.value.value.maySayFixed && open !== 'not_fixed'" type="primary" :disabled="busy" @click="send(() => call(sayFixed, { token }))"
            >It is fixed</NButton
          >
          <NButton v-if="tracked.value.value.maySayNotFixed && open !== 'not_fixed'" @click="open = 'not_fixed'"> It is not fixed </NButton>
          <p v-if="tracked.value.value.toldAgain">
            You told us that it is not fixed: the desk looks at it again as <span class="mono">{{ tracked.value.value.toldAgain }}</span>.
          </p>
          <form v-if="open === 'not_fixed'" class="card" @submit.prevent="send(() => call(sayNotFixed, { token, text: message }))">
            <TextEntry id="not-fixed" v-model="message" label="What is still wrong?" long :max="2000" required />
            <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
            <NButton type="primary" attr-type="submit" :disabled="busy">Tell the desk</NButton> <NButton @click="open = null">Not now</NButton>
          </form>
        </div>
        <TrackedTimes v-if="!tracked.value.value.following" :token="token" />
        <div v-if="tracked.value.value.messages.length || tracked.value.value.mayWrite" class="card">
          <h2>Messages</h2>
          <p v-for="(one, index) in tracked.value.value.messages" :key="index" class="said" :class="{ mine: one.mine }">
            <span class="label">{{ one.mine ? 'You' : one.from }}, {{ longTime(one.at) }}</span
            ><br /><span class="text">{{ one.text }}</span>
            <span v-if="one.files.length" class="thumbs">
              <a v-for="(file, at) in one.files" :key="file.id" :href="address(readTrackedFile, { token, fileId: file.id })"
                ><img :src="address(readTrackedFile, { token, fileId: file.id, small: true })" :alt="`Photo ${at + 1} of ${one.from}`"
              /></a>
            </span>
          </p>
          <NButton v-if="tracked.value.value.mayWrite && open !== 'message'" @click="open = 'message'">Write to the desk</NButton>
          <form
            v-if="open === 'message'"
            @submit.prevent="send(() => call(writeAsReporter, { token, text: message, fileClaims: files.map((file) => file.claim) }))"
          >
            <TextEntry id="message" v-model="message" label="What would you like to add?" long :max="2000" required />
            <FilesField v-model="files" :upload="upload" label="Photos and documents" />
            <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
            <NButton type="primary" attr-type="submit" :disabled="busy">Send</NButton> <NButton @click="open = null">Not now</NButton>
          </form>
        </div>
        <div v-if="tracked.value.value.steps.length" class="card">
          <h2>What has happened</h2>
          <ol class="steps">
            <li v-for="(one, index) in tracked.value.value.steps" :key="index">
              <span class="label mono">{{ longTime(one.at) }}</span><br />{{ one.sentence }}
            </li>
          </ol>
        </div>
        <SharedDocuments :read="() => call(listTrackedDocuments, { token })" :url-of="(fileId) => address(readTrackedDocument, { token, fileId })" />
        <div v-if="!tracked.value.value.following" class="card">
          <h2>What you told us</h2>
          <p v-if="tracked.value.value.place" class="label">{{ tracked.value.value.place }}</p>
          <p class="text">{{ tracked.value.value.description }}</p>
          <p v-for="one in tracked.value.value.answers" :key="one.label">
            <span class="label">{{ one.label }}</span><br />{{ one.answer }}
          </p>
          <div class="thumbs">
            <a
              v-for="(file, index) in tracked.value.value.files.filter((one) => one.kind === 'picture')"
              :key="file.id"
              :href="address(readTrackedFile, { token, fileId: file.id })"
              ><img :src="address(readTrackedFile, { token, fileId: file.id, small: true })" :alt="`Your photo ${index + 1}`"
            /></a>
          </div>
          <p v-for="file in tracked.value.value.files.filter((one) => one.kind === 'document')" :key="file.id">
            <a :href="address(readTrackedFile, { token, fileId: file.id })">{{ file.name }}</a>
          </p>
        </div>
        <p v-else class="label">You follow this. What was sent with it is its reporter’s own.</p>
        <p class="label">
          Call the desk: <a :href="`tel:${tracked.value.value.site.deskPhone.replace(/ /g, '')}`">{{ tracked.value.value.site.deskPhone }}</a>, or
          <RouterLink :to="`/c/${tracked.value.value.site.code}`">report something else</RouterLink>
        </p>
      </template>
      <div v-else class="bones wait" />
    </main>
  </PhonePage>
</template>

<style scoped>
.standing {
  font-size: 20px;
  padding: 10px 14px;
  border-left: 6px solid var(--tide);
  background: var(--shoal-faint);
  overflow-wrap: anywhere;
}
.steps {
  margin: 0;
  padding-left: 18px;
  display: grid;
  gap: 8px;
}
.said {
  padding-left: 12px;
  border-left: 4px solid var(--tide);
  overflow-wrap: anywhere;
}
.said.mine {
  border-left-color: var(--line-strong);
}
</style>
