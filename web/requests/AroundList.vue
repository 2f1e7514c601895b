<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import { followRequest, readAround } from '#contract/requests'
import type { KnownRequest } from '#contract/requests'
import { TextEntry, address, call, CallProblem, longTime, useSoon } from '#web/kit'
import { readHelpFile } from '#contract/help'
import { BULLETIN_KINDS } from '#web/help'

/** What is known here already: before somebody says it again, they may add themselves to it. */
const props = defineProps<{
  site: string
  placeId: number | null
  assetId: number | null
  words: string
  categoryId: number | null
  email: string
  name: string
}>()
type Around = Awaited<ReturnType<typeof load>>
const load = () =>
  call(readAround, {
    site: props.site,
    placeId: props.placeId ?? undefined,
    assetId: props.assetId ?? undefined,
    words: props.words.trim().slice(0, 80) || undefined,
    categoryId: props.categoryId ?? undefined,
  })
const around = ref<Around | null>(null)
const joining = ref<KnownRequest | null>(null)
const mailTo = ref('')
const wrong = ref('')
const joined = ref<number[]>([])
const empty = computed(() => !around.value || !(around.value.requests.length + around.value.bulletins.length + around.value.articles.length))

const look = useSoon(async () => {
  const asked = JSON.stringify(props)
  const found = await load().catch(() => null)
  if (asked === JSON.stringify(props)) around.value = found
}, 250)
watch(() => [props.placeId, props.assetId, props.words, props.categoryId], look, { immediate: true })

function begin(request: KnownRequest): void {
  joining.value = request
  mailTo.value = props.email
  wrong.value = ''
}
async function follow(): Promise<void> {
  wrong.value = ''
  try {
    await call(followRequest, { site: props.site, id: joining.value!.id, email: mailTo.value, name: props.name || undefined })
    joined.value.push(joining.value!.id)
    joining.value = null
  } catch (error) {
    wrong.value = error instanceof CallProblem ? (error.reasons[0]?.sentence ?? error.message) : 'It was not sent. Try again.'
  }
}
</script>

<template>
  <section v-if="!empty" class="card" aria-label="Known already">
    <h2>Known already</h2>
    <article v-for="one in around!.bulletins" :key="`b${one.id}`" class="known notice">
      <p>
        <strong>{{ BULLETIN_KINDS[one.kind] }}: {{ one.title }}</strong>
      </p>
      <p class="label">{{ longTime(one.startsAt) }} to {{ longTime(one.endsAt) }}</p>
      <!-- Cleaned by the server before it was kept. -->
      <!-- eslint-disable-next-line vue/no-v-html -->
      <div class="rich" v-html="one.body" />
    </article>
    <article v-for="one in around!.requests" :key="one.id" class="known">
      <p>
        <strong>{{ one.summary }}</strong>, {{ one.place }}
      </p>
      <p class="label">Reported {{ longTime(one.since) }}. {{ one.progress.sentence }}</p>
      <p v-if="joined.includes(one.id)" role="status">Look into your mail and confirm the address; then you hear how it goes. You need not send it again.</p>
      <form v-else-if="joining?.id === one.id" class="follow" @submit.prevent="follow">
        <TextEntry id="follow-email" v-model="mailTo" label="Your mail address, to hear how it goes" kind="email" :problem="wrong" autocomplete="email" />
        <NButton type="primary" attr-type="submit">Add me</NButton> <NButton @click="joining = null">Not now</NButton>
      </form>
      <NButton v-else @click="begin(one)">Me too</NButton>
    </article>
    <details v-for="one in around!.articles" :key="`a${one.id}`" class="known">
      <summary>{{ one.title }}</summary>
      <!-- eslint-disable-next-line vue/no-v-html -->
      <div class="rich" v-html="one.body" />
      <p v-for="file in one.documents" :key="file.id">
        <a :href="address(readHelpFile, { id: file.id })">{{ file.name }}</a>, {{ Math.max(1, Math.round(file.bytes / 1024)) }} kB
      </p>
    </details>
  </section>
</template>

<style scoped>
.known {
  display: grid;
  gap: 6px;
  justify-items: start;
  padding: 10px 0 10px 12px;
  border-left: 4px solid var(--line-strong);
}
.known + .known {
  margin-top: 10px;
}
.notice {
  border-left-color: var(--sand);
}
.known summary {
  cursor: pointer;
  min-height: 32px;
  font-weight: 600;
}
.rich :deep(p) {
  margin: 0 0 6px;
}
.rich :deep(img) {
  max-width: 100%;
  height: auto;
}
.rich {
  overflow-wrap: anywhere;
}
.follow {
  width: 100%;
}
</style>
