<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { writeComment } from '#contract/requests'
import type { CommentKind, Conversation } from '#contract/requests'
import { TextEntry, call, CallProblem, shortTime, useDraft } from '#web/kit'
import { PictureRow } from '#web/sheets'

/** What was said. A note and a message cannot be taken for each other: place, colour and wording differ. */
const props = defineProps<{ requestId: number; conversation: Conversation; mayWrite: boolean }>()
const emit = defineEmits<{ written: [Conversation] }>()
const kind = ref<CommentKind>('note')
const text = useDraft(() => `comment-${props.requestId}`)
/** Asked once, when words are typed already and the other kind is chosen. */
const switching = ref<CommentKind | null>(null)
const wrong = ref('')
const busy = ref(false)
const reaches = computed(() => props.conversation.reaches.join(', '))

function choose(wanted: CommentKind): void {
  if (wanted === kind.value) return
  if (text.value.trim()) switching.value = wanted
  else kind.value = wanted
}
function settle(sure: boolean): void {
  if (sure) kind.value = switching.value!
  switching.value = null
}
async function send(): Promise<void> {
  if (switching.value) return
  wrong.value = ''
  busy.value = true
  try {
    emit('written', await call(writeComment, { id: props.requestId, kind: kind.value, text: text.value }))
    text.value = ''
  } catch (error) {
    wrong.value = error instanceof CallProblem ? (error.reasons[0]?.sentence ?? error.message) : 'It was not sent. What you typed is still here.'
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <ol v-if="conversation.rows.length" class="talk">
    <li v-for="row in conversation.rows" :key="row.id" :class="[row.kind, { theirs: row.fromReporter }]">
      <p class="by">
        <strong>{{ row.author }}</strong> <span class="mono soft">{{ shortTime(row.at) }}</span>
        <span class="tag">{{ row.kind === 'note' ? 'note, stays at the desk' : row.fromReporter ? 'from the reporter' : 'sent to the reporter' }}</span>
      </p>
      <p class="text">{{ row.text }}</p>
      <PictureRow v-if="row.files.length" :pictures="row.files" />
      <details v-if="row.quoted">
        <summary>What it repeats</summary>
        <p class="text soft">{{ row.quoted }}</p>
      </details>
    </li>
  </ol>
  <p v-else class="soft">Nothing has been said yet.</p>
  <form v-if="mayWrite" class="write" :class="kind" @submit.prevent="send" @keydown.ctrl.enter.prevent="send">
    <div class="kinds" role="group" aria-label="Who reads it">
      <NButton :class="{ on: kind === 'note' }" :aria-pressed="kind === 'note'" @click="choose('note')">Note for the desk</NButton>
      <NButton :class="{ on: kind === 'message' }" :aria-pressed="kind === 'message'" @click="choose('message')"> Message to the reporter </NButton>
    </div>
    <div v-if="switching" class="ask" role="alert">
      <p>
        {{
          switching === 'message'
            ? `What you typed as a note will be mailed to ${reaches || 'the reporter'}.`
            : 'What you typed as a message will stay at the desk; the reporter will not see it.'
        }}
      </p>
      <NButton @click="settle(true)">{{ switching === 'message' ? 'Make it a message' : 'Make it a note' }}</NButton>
      <NButton @click="settle(false)">Leave it as it is</NButton>
    </div>
    <TextEntry
      id="comment"
      v-model="text"
      :label="kind === 'note' ? 'Only the desk reads this' : reaches ? `Mailed to ${reaches}` : 'The reporter left no address: call them instead'"
      long
      :max="4000"
      :problem="wrong"
      rows="3"
    />
    <NButton :type="kind === 'message' ? 'primary' : 'default'" attr-type="submit" :disabled="busy || !text.trim() || !!switching">
      {{ kind === 'note' ? 'Keep the note' : 'Send to the reporter' }} <kbd>Ctrl Enter</kbd>
    </NButton>
  </form>
</template>

<style scoped>
.talk {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 10px;
}
.talk li {
  padding: 8px 12px;
  border-radius: 6px;
  display: grid;
  gap: 4px;
}
.note {
  background: var(--paper);
  border: 1px dashed var(--line-strong);
  margin-right: 64px;
}
.message {
  background: var(--shoal-faint);
  border: 1px solid var(--tide);
  margin-left: 64px;
}
.message.theirs {
  margin-left: 0;
  margin-right: 64px;
}
.by {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.tag {
  margin-left: auto;
  font-size: 13px;
  color: var(--ink-soft);
}
.text {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
.write {
  display: grid;
  gap: 8px;
  justify-items: start;
  padding: 10px 12px;
  border-radius: 6px;
  margin-inline: 0;
}
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.on {
  background: var(--sheet);
  border-color: var(--tide);
  font-weight: 600;
}
.ask {
  padding: 8px 10px;
  border-left: 4px solid var(--buoy);
  background: var(--sheet);
  display: grid;
  gap: 8px;
  justify-items: start;
}
</style>
