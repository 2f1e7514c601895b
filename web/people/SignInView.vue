<script setup lang="ts">
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { CallProblem, useSession } from '#web/kit'

const session = useSession()
const route = useRoute()
const router = useRouter()
const email = ref('')
const password = ref('')
const wrong = ref('')
const busy = ref(false)

async function enter(): Promise<void> {
  busy.value = true
  wrong.value = ''
  try {
    await session.enter(email.value, password.value)
    await router.replace(typeof route.query.to === 'string' && route.query.to.startsWith('/') ? route.query.to : '/')
  } catch (error) {
    wrong.value = error instanceof CallProblem ? (error.reasons[0]?.sentence ?? error.message) : 'Signing in failed. Try again.'
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <main class="door roomy">
    <form class="card" @submit.prevent="enter">
      <p class="wordmark">Evrix</p>
      <h1>Sign in</h1>
      <div class="field">
        <label for="email">Mail address</label>
        <input id="email" v-model="email" class="entry" type="email" autocomplete="username" required autofocus />
      </div>
      <div class="field">
        <label for="password">Password</label>
        <input
          id="password"
          v-model="password"
          class="entry"
          type="password"
          autocomplete="current-password"
          required
          :aria-invalid="!!wrong"
          aria-describedby="wrong"
        />
        <p id="wrong" class="problem" role="alert">{{ wrong }}</p>
      </div>
      <button class="push first" :disabled="busy">{{ busy ? 'Signing in' : 'Sign in' }}</button>
      <p class="soft">Something broken? You need no account: use the page of your site, or the code on the wall.</p>
    </form>
  </main>
</template>

<style scoped>
.door {
  min-height: 100%;
  display: grid;
  place-items: center;
  padding: 16px;
  background: var(--paper);
  border-top: 8px solid var(--deep);
}
.card {
  width: min(380px, 100%);
  display: grid;
  gap: 16px;
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 24px;
}
.wordmark {
  font-weight: 700;
  letter-spacing: 0.08em;
  color: var(--tide-text);
}
</style>
