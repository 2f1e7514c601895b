<script setup lang="ts">
import type { Said } from '#contract/field'
import type { Speaker } from '#core/talk'
import { KeptPicture } from '#web/devices'
import { shortTime } from '#web/kit'

/** What was said, the latest last: who, to whom, with its photos. One’s own stands at the right. */
defineProps<{
  rows: readonly Said[]
  urlOf: (id: number) => string
  /** At the desk it is said of each who reads it. */
  named?: boolean
}>()
const IS: Record<Speaker, string> = { desk: 'the desk', crew: 'on the job', vendor: 'vendor', reporter: 'reported it' }
const readBy = ({ audience, speaker }: Said) =>
  ({
    ours: 'ours alone',
    vendor: speaker === 'desk' ? 'to the vendor' : 'from the vendor',
    reporter: speaker === 'reporter' ? 'from the reporter' : 'to the reporter',
  })[audience]
</script>

<template>
  <ol class="talk" aria-label="What was said">
    <li v-for="one in rows" :key="one.mark ?? one.id" :class="{ mine: one.mine, out: one.audience !== 'ours' }">
      <p class="by">
        <strong>{{ one.mine ? 'You' : one.who }}</strong>
        <span class="label">{{ one.mine ? '' : `${IS[one.speaker]}, ` }}{{ shortTime(one.at) }}</span>
        <span v-if="named || one.audience === 'reporter'" class="label to">{{ readBy(one) }}</span>
      </p>
      <p class="text">{{ one.text }}</p>
      <div v-if="one.photos.length" class="thumbs">
        <a v-for="(photo, index) in one.photos" :key="photo.id" :href="photo.fileId ? undefined : urlOf(photo.id)" target="_blank">
          <KeptPicture :url="urlOf(photo.id)" :file-id="photo.fileId" :alt="`Photo ${index + 1} of ${one.mine ? 'yours' : one.who}`" />
        </a>
      </div>
    </li>
  </ol>
</template>

<style scoped>
.talk {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 8px;
}
li {
  padding: 8px 12px;
  margin-right: 24px;
  border-radius: 6px;
  border: 1px solid var(--line);
  background: var(--paper);
  display: grid;
  gap: 4px;
}
.mine {
  margin-right: 0;
  margin-left: 24px;
  background: var(--shoal-faint);
}
.out {
  border-color: var(--tide);
}
.by {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
}
.to {
  margin-left: auto;
}
p {
  margin: 0;
}
.text {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
.thumbs {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.thumbs :deep(img) {
  height: 96px;
  border-radius: 6px;
  border: 1px solid var(--line);
}
</style>
