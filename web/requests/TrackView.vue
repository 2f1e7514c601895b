<script setup lang="ts">
import { onUnmounted, ref } from 'vue'
import { useRoute } from 'vue-router'
import { answerQuestion, readTrackedPhoto, trackRequest } from '#contract/requests'
import { address, call, CallProblem, longTime, ProblemNote, useLoading } from '#web/kit'

/** The reporter's private page: where it stands, in their words. */
const token = String(useRoute().params.token)
const tracked = useLoading(() => call(trackRequest, { token }))
void tracked.load()
const often = setInterval(() => void tracked.load(), 30_000)
onUnmounted(() => clearInterval(often))
const answer = ref('')
const wrong = ref('')

async function send(): Promise<void> {
  wrong.value = ''
  try {
    tracked.value.value = await call(answerQuestion, { token, answer: answer.value })
    answer.value = ''
  } catch (error) {
    wrong.value = error instanceof CallProblem ? (error.reasons[0]?.sentence ?? error.message) : 'It was not sent. Try again.'
  }
}
</script>

<template>
  <div class="phone roomy">
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
          <form v-if="tracked.value.value.mayAnswer" class="card" @submit.prevent="send">
            <div class="field"><label for="answer">Your answer</label><textarea id="answer" v-model="answer" class="entry" required maxlength="2000" /></div>
            <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
            <button class="push first">Send the answer</button>
          </form>
        </div>
        <div class="card">
          <h2>What has happened</h2>
          <ol class="steps">
            <li v-for="(one, index) in tracked.value.value.steps" :key="index">
              <span class="label mono">{{ longTime(one.at) }}</span><br />{{ one.sentence }}
            </li>
          </ol>
        </div>
        <div class="card">
          <h2>What you told us</h2>
          <p v-if="tracked.value.value.place" class="label">{{ tracked.value.value.place }}</p>
          <p class="text">{{ tracked.value.value.description }}</p>
          <div class="thumbs">
            <img
              v-for="(photo, index) in tracked.value.value.photos"
              :key="photo.id"
              :src="address(readTrackedPhoto, { token, photoId: photo.id })"
              :alt="`Your photo ${index + 1}`"
            />
          </div>
        </div>
        <p class="label">
          Anything to add? Call the desk: <a :href="`tel:${tracked.value.value.site.deskPhone.replace(/ /g, '')}`">{{ tracked.value.value.site.deskPhone }}</a>
        </p>
      </template>
      <div v-else class="bones wait" />
    </main>
  </div>
</template>

<style src="../kit/phone.css"></style>
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
.wait {
  height: 200px;
}
</style>
