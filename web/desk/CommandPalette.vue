<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { search as searchWords } from '#contract/lists'
import type { SearchAnswer } from '#contract/lists'
import { foldText } from '#core/kit'
import { TextEntry, call, DialogBox, useActs, useSoon } from '#web/kit'
import type { Act } from '#web/kit'
import { addressForFound, TYPE_NAMES } from '#web/lists'
import { isNamed } from './named'

const emit = defineEmits<{ close: [] }>()
const acts = useActs()
const router = useRouter()
const text = ref('')
const found = ref<SearchAnswer | null>(null)
const at = ref(0)

const search = useSoon(async () => {
  const asked = text.value
  const answer = asked.trim().length > 1 ? await call(searchWords, { q: asked }) : null
  if (asked === text.value) found.value = answer
}, 120)
watch(text, () => {
  at.value = 0
  search()
})

type Line = { id: string; title: string; note: string; key?: string; run: () => unknown; act?: Act }
const lines = computed<Line[]>(() => {
  const words = foldText(text.value).split(' ').filter(Boolean)
  const matching = acts.all().filter((act) => words.every((word) => foldText(act.label).includes(word)))
  const lineOf = (act: Act, index: number): Line => ({ id: `act${index}`, title: act.label, note: act.whyNot ?? 'Act', key: act.key, run: act.run, act })
  const [named, others] = [true, false].map((wanted) => matching.filter(({ label }) => isNamed(label, text.value) === wanted))
  return [
    ...named!.map(lineOf),
    ...(found.value?.rows ?? []).map((one, index) => ({
      id: `${one.type}${one.id}-${index}`,
      title: one.title,
      note: `${TYPE_NAMES[one.type].one}: ${one.subtitle}${one.snippet ? `. ${one.snippet}` : ''}`,
      run: () => router.push(addressForFound(one)),
    })),
    ...others!.map((act, index) => lineOf(act, named!.length + index)),
    ...(text.value.trim().length > 1
      ? [{ id: 'everywhere', title: `Search everywhere for “${text.value.trim()}”`, note: 'With filters, page by page', run: searchPage }]
      : []),
  ].slice(0, 45)
})
const searchPage = () => router.push({ name: 'search', query: { q: text.value.trim() } })

function run(line: Line | undefined): void {
  if (!line || line.act?.whyNot) return
  emit('close')
  setTimeout(() => void line.run())
}

function keys(event: KeyboardEvent): void {
  const step = { ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (step) {
    event.preventDefault()
    at.value = (at.value + step + lines.value.length) % Math.max(1, lines.value.length)
    document.getElementById(`line-${at.value}`)?.scrollIntoView({ block: 'nearest' })
  }
  if (event.key === 'Enter') {
    event.preventDefault()
    run(lines.value[at.value])
  }
}
</script>

<template>
  <DialogBox title="Palette" @close="$emit('close')">
    <TextEntry
      id="palette-words"
      v-model="text"
      label-hidden
      label="Find a record or an act"
      role="combobox"
      aria-expanded="true"
      aria-controls="palette-lines"
      :aria-activedescendant="`line-${at}`"
      placeholder="Number, place, asset, person, or what you want to do"
      autocomplete="off"
      @keydown="keys"
    />
    <p v-if="found?.instead" class="soft instead" role="status">
      Nothing is written like that; this is for <strong>{{ found.instead }}</strong>.
    </p>
    <ul id="palette-lines" role="listbox" aria-label="Found">
      <li
        v-for="(line, index) in lines"
        :id="`line-${index}`"
        :key="line.id"
        role="option"
        :aria-selected="index === at"
        :class="{ at: index === at, not: line.act?.whyNot }"
        @click="run(line)"
        @pointermove="at = index"
      >
        <span class="title">{{ line.title }}</span><span class="note soft">{{ line.note }}</span
        ><kbd v-if="line.key" class="mono">{{ line.key.toUpperCase() }}</kbd>
      </li>
    </ul>
    <p v-if="!lines.length" class="soft none">Nothing found. Try a number like W-31207, a room code, a tag or a name.</p>
  </DialogBox>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 10px 0 0;
  padding: 0;
  max-height: 50vh;
  overflow: auto;
}
li {
  display: flex;
  gap: 10px;
  align-items: baseline;
  padding: 6px 10px;
  border-radius: 6px;
  cursor: pointer;
}
.at {
  background: var(--shoal);
}
.at .note {
  color: var(--ink);
}
.not .title {
  color: var(--ink-soft);
}
.note {
  flex: 1;
  font-size: 12px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
kbd {
  font-size: 11px;
  border: 1px solid var(--line-strong);
  border-radius: 3px;
  padding: 0 5px;
}
.instead {
  padding: 8px 10px 0;
}
.none {
  padding: 12px 10px 0;
}
</style>
