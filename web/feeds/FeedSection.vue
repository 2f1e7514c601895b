<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { listFeeds, makeFeed, revokeFeed } from '#contract/feeds'
import type { Feeds } from '#contract/feeds'
import type { RecordFrame } from '#contract/registers'
import type { FeedRegister } from '#core/feeds'
import { call, LoadedPart, shortTime, TextEntry, useFormDraft, useRead, useSession } from '#web/kit'
import { FoldForm, useLineAct, useOpenSheet } from '#web/sheets'
import FeedAddress from './FeedAddress.vue'

/** Secret addresses from which calendar programs read the visits of this record, one for each who subscribes. */
const { sheet: open } = useOpenSheet<RecordFrame & { register: string }>()
const session = useSession()
const of = { register: open.value.register as FeedRegister, recordId: open.value.id }
const feeds = useRead(listFeeds, () => (session.can('registers.edit') ? of : null), {
  touchedBy: (change) => change.register === of.register && change.recordId === of.recordId && change.kind.startsWith('feed.'),
})
const { act, at, busy } = useLineAct<Feeds>((now) => void (feeds.value.value = now))
const fold = ref<InstanceType<typeof FoldForm> | null>(null)
const { form, kept, drop } = useFormDraft(`feed-${of.register}-${of.recordId}`, { for: '' })
async function add(): Promise<void> {
  if (!(await act(() => call(makeFeed, { ...of, for: form.for.trim() }), 'The feed is made. Whoever has its address reads these visits.'))) return
  drop()
  fold.value?.close()
}
</script>

<template>
  <p v-if="!session.can('registers.edit')" class="soft">Who keeps the registers makes feeds.</p>
  <LoadedPart v-else :part="feeds">
    <ul v-if="feeds.value.value!.rows.length">
      <li v-for="one in feeds.value.value!.rows" :key="one.id">
        <p>
          <strong>{{ one.for }}</strong>
          <span class="soft">, made {{ shortTime(one.madeAt) }}, {{ one.readAt ? `read ${shortTime(one.readAt)}` : 'not read yet' }}</span>
          <NButton size="tiny" :disabled="busy" @click="act(() => call(revokeFeed, { id: one.id }), `The feed for ${one.for} tells nothing any more.`)"
            >Take back</NButton
          >
        </p>
        <FeedAddress :id="`feed-${one.id}`" :address="one.address" />
      </li>
    </ul>
    <p v-else class="soft">{{ feeds.value.value!.whyNot ?? 'None: a calendar program can subscribe to these visits by a secret address.' }}</p>
    <FoldForm v-if="!feeds.value.value!.whyNot" ref="fold" label="Make a feed" :begun="kept" @send="add">
      <TextEntry id="feed-for" v-model="form.for" label="Who subscribes" small :max="120" :problem="at('for')" />
      <NButton size="small" attr-type="submit" :disabled="busy || !form.for.trim()">Make it</NButton>
    </FoldForm>
  </LoadedPart>
</template>

<style scoped src="../sheets/lines.css"></style>
<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 10px;
}
li p {
  margin: 0 0 4px;
}
li .n-button {
  margin-left: 8px;
}
</style>
