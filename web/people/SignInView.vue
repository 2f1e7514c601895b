<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { NButton } from 'naive-ui/es/button'
import { readDemoPeople } from '#contract/people'
import type { DemoPeople } from '#contract/people'
import { formatMinor } from '#core/kit'
import { ROLE_NAMES } from '#core/people'
import { call, CallProblem, TextEntry, useLoading, useSession } from '#web/kit'

const session = useSession()
const route = useRoute()
const router = useRouter()
const email = ref('')
const password = ref('')
const wrong = ref('')
/** Who comes here begins with their address; the browser heeds that by itself only while a page loads. */
const first = ref<InstanceType<typeof TextEntry> | null>(null)
onMounted(() => first.value?.focus())
const busy = ref(false)

/** In a demo world everybody can be anybody; in every other nobody is offered. */
const demo = useLoading(() => call(readDemoPeople, {}))
void demo.load()
const jobOf = ({ roles, approvalLimitMinor }: DemoPeople['rows'][number]) =>
  roles.map((role) => (role === 'approver' && approvalLimitMinor !== null ? `Approver, to ${formatMinor(approvalLimitMinor)}` : ROLE_NAMES[role])).join(', ')
function enterAs(person: DemoPeople['rows'][number]): Promise<void> {
  email.value = person.email
  password.value = demo.value.value!.password!
  return enter()
}

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
      <TextEntry id="email" ref="first" v-model="email" label="Mail address" kind="email" autocomplete="username" required />
      <TextEntry id="password" v-model="password" label="Password" kind="password" autocomplete="current-password" required :problem="wrong" />
      <NButton type="primary" attr-type="submit" :disabled="busy">{{ busy ? 'Signing in' : 'Sign in' }}</NButton>
      <p class="soft">Something broken? You need no account: use the page of your site, or the code on the wall.</p>
    </form>
    <section v-if="demo.value.value?.password" class="demo" aria-label="People of the demo world">
      <h2>A demo world</h2>
      <p class="soft">Everything in it is made up. Come in as one of its people; the password of all of them is {{ demo.value.value.password }}.</p>
      <ul>
        <li v-for="person in demo.value.value.rows" :key="person.email">
          <NButton class="person" :disabled="busy" @click="enterAs(person)">
            <strong>{{ person.name }}</strong><span class="soft">{{ jobOf(person) }}</span>
          </NButton>
        </li>
      </ul>
    </section>
  </main>
</template>

<style scoped>
.door {
  min-height: 100%;
  display: grid;
  place-content: center;
  align-items: center;
  gap: 24px 48px;
  grid-template-columns: minmax(0, 380px);
  padding: 16px;
  background: var(--paper);
  border-top: 8px solid var(--deep);
}
.card {
  display: grid;
  gap: 16px;
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 24px;
}
@media (min-width: 860px) {
  .door:has(.demo) {
    grid-template-columns: minmax(0, 380px) minmax(0, 340px);
  }
}
.demo h2 {
  font-size: 15px;
}
.demo ul {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
.person {
  width: 100%;
  min-height: 44px;
}
.person :deep(.n-button__content) {
  width: 100%;
  justify-content: space-between;
  gap: 12px;
}
.wordmark {
  font-weight: 700;
  letter-spacing: 0.08em;
  color: var(--tide-text);
}
</style>
