<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import { dropWording, previewWording, saveWording } from '#contract/setup'
import type { IntakeSetup } from '#contract/setup'
import { OCCASION_NAMES, OCCASIONS, PLACEHOLDERS, wordingReasons } from '#core/requests'
import type { Occasion } from '#core/requests'
import { useOwnFields } from '#web/own'
import { rowsNamed, named, ListEntry, TextEntry, call, CallProblem, dropDrafts, useDraft } from '#web/kit'

const own = useOwnFields()
void own.ensure()

/** The words of a mail, for each site and occasion, with what they become beside them. */
const props = defineProps<{ setup: IntakeSetup; keep: (change: () => Promise<IntakeSetup>, done: string) => Promise<boolean>; problem: CallProblem | null }>()
const siteId = ref(props.setup.sites[0]!.id)
const occasion = ref<Occasion>('received')
const kept = computed(() => props.setup.wordings.find((one) => one.siteId === siteId.value && one.occasion === occasion.value)!)
const about = () => `wording-${siteId.value}-${occasion.value}`
const subject = useDraft(
  () => `${about()}-subject`,
  () => kept.value.subject,
)
const text = useDraft(
  () => `${about()}-text`,
  () => kept.value.text,
)
const preview = ref<{ subject: string; text: string; html: string; of: string } | null>(null)
const failed = ref('')
watch(kept, () => (preview.value = null))
const wrong = computed(() =>
  wordingReasons(
    { subject: subject.value, text: text.value },
    own.of('requests').map((field) => field.label),
  ),
)
const at = (field: string) => wrong.value.find((reason) => reason.field === field)?.sentence
const entry = () => ({ siteId: siteId.value, occasion: occasion.value, subject: subject.value, text: text.value })

/** Keeps a change of the words; what was being written is over then. */
async function settle(change: () => Promise<IntakeSetup>, done: string): Promise<void> {
  if (!(await props.keep(change, done))) return
  dropDrafts(about())
  subject.value = kept.value.subject
  text.value = kept.value.text
}
async function show(): Promise<void> {
  failed.value = ''
  preview.value = await call(previewWording, entry()).catch((error: unknown) => {
    failed.value = error instanceof CallProblem ? (error.reasons[0]?.sentence ?? error.message) : 'It could not be shown.'
    return null
  })
}
</script>

<template>
  <section aria-label="Words of mails">
    <h2>What reporters are written</h2>
    <div class="split">
      <form class="words" @submit.prevent="settle(() => call(saveWording, entry()), 'The words are saved; the next mail has them.')">
        <div class="two">
          <ListEntry id="word-site" :model-value="siteId" label="Site" :options="rowsNamed(setup.sites)" @update:model-value="siteId = $event ?? siteId" />
          <ListEntry
            id="word-occasion"
            :model-value="occasion"
            label="When"
            :options="named(OCCASIONS, OCCASION_NAMES)"
            @update:model-value="occasion = $event ?? occasion"
          />
        </div>
        <p class="soft">{{ kept.own ? 'This site has words of its own here.' : 'These are the usual words.' }}</p>
        <TextEntry id="word-subject" v-model="subject" label="Subject" :max="200" :problem="at('subject')" />
        <TextEntry id="word-text" v-model="text" label="Text" long :max="8000" :problem="at('text')" rows="12" />
        <p class="acts">
          <NButton type="primary" attr-type="submit" :disabled="wrong.length > 0">Save</NButton>
          <NButton :disabled="wrong.length > 0" @click="show">Show it filled in</NButton>
          <NButton v-if="kept.own" @click="settle(() => call(dropWording, { siteId, occasion }), 'The usual words are back.')"> Use the usual words </NButton>
        </p>
        <p v-if="failed" class="problem" role="alert">{{ failed }}</p>
      </form>
      <div>
        <div v-if="preview" class="preview" aria-label="The mail filled in">
          <p class="soft">As it would be for {{ preview.of }}</p>
          <p>
            <strong>{{ preview.subject }}</strong>
          </p>
          <p class="text">{{ preview.text }}</p>
          <p class="soft">It is sent as plain text and as HTML.</p>
        </div>
        <dl class="known">
          <template v-for="(what, name) in PLACEHOLDERS" :key="name"
            ><dt class="mono">{{ `\{${name}\}` }}</dt>
            <dd>{{ what }}</dd></template
          >
          <template v-for="field in own.of('requests')" :key="field.id"
            ><dt class="mono">{{ `\{${field.label}\}` }}</dt>
            <dd>Own field of the request</dd></template
          >
        </dl>
      </div>
    </div>
  </section>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.split {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr);
  gap: 24px;
}
.words,
.two {
  display: grid;
  gap: 10px;
}
.two {
  grid-template-columns: 1fr 1fr;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.preview {
  padding: 12px 16px;
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: 6px;
  margin-bottom: 16px;
}
.text {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
.known {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 4px 12px;
  margin: 0;
  font-size: 13px;
}
.known dd {
  margin: 0;
}
@media (max-width: 800px) {
  .split {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
