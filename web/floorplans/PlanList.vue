<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import { computed, ref, watch } from 'vue'
import { foldText } from '#core/kit'
import { RowButton, TextEntry } from '#web/kit'
import { sameOnPlan, workSays } from './drawn'
import type { DrawnAsset, DrawnSpace, OnPlan } from './drawn'

/** The same as the drawing, to be read and found by typing: each space with what stands in it. */
const props = defineProps<{
  id: string
  spaces: DrawnSpace[]
  assets: (DrawnAsset & { placeId?: number })[]
  chosen: OnPlan | null
  picked?: ReadonlySet<number>
}>()
defineEmits<{ choose: [what: OnPlan] }>()
const text = ref('')
interface Line {
  what: OnPlan
  code: string
  name: string
  work: string
  off: boolean
  within: boolean
}
const lines = computed(() => {
  const standing = new Map<number | undefined, DrawnAsset[]>()
  for (const asset of props.assets) standing.set(asset.placeId, [...(standing.get(asset.placeId) ?? []), asset])
  const ofAsset = (asset: DrawnAsset, within: boolean): Line => ({
    what: { kind: 'asset', id: asset.id },
    code: asset.tag,
    name: asset.name,
    work: workSays(asset),
    off: asset.at === null,
    within,
  })
  const spaces = props.spaces.flatMap((space): Line[] => {
    const within = standing.get(space.id) ?? []
    standing.delete(space.id)
    const what: OnPlan = { kind: 'space', id: space.id }
    return [
      { what, code: space.code, name: space.name, work: workSays(space), off: space.shape === null, within: false },
      ...within.map((asset) => ofAsset(asset, true)),
    ]
  })
  const all = [...spaces, ...[...standing.values()].flat().map((asset) => ofAsset(asset, false))]
  const words = foldText(text.value).split(' ').filter(Boolean)
  return words.length ? all.filter(({ code, name }) => words.every((word) => foldText(`${code} ${name}`).includes(word))) : all
})

/** Only the lines in sight are there: a floor may hold thousands. */
const LINE_PX = 29
const scrolled = ref<HTMLElement | null>(null)
const virtual = useVirtualizer(
  computed(() => ({
    count: lines.value.length,
    getScrollElement: () => scrolled.value,
    estimateSize: () => LINE_PX,
    overscan: 8,
    initialRect: { width: 320, height: 600 },
  })),
)
/** What was chosen on the drawing is brought into sight. */
watch(
  () => props.chosen,
  (what) => {
    const index = lines.value.findIndex((line) => sameOnPlan(line.what, what))
    if (index >= 0) virtual.value.scrollToIndex(index, { align: 'auto' })
  },
)
</script>

<template>
  <div class="list">
    <TextEntry :id="id" v-model="text" kind="search" label="Find on this floor" placeholder="Part of a code or name" />
    <p v-if="!lines.length" class="soft" role="status">{{ text ? `Nothing here is called “${text}”.` : 'There are no spaces on this floor yet.' }}</p>
    <div v-else ref="scrolled" class="scrolled">
      <ul aria-label="What is on this floor" :style="{ height: `${virtual.getTotalSize()}px` }">
        <li
          v-for="{ index, start, line } in virtual.getVirtualItems().map((item) => ({ ...item, line: lines[item.index]! }))"
          :key="`${line.what.kind} ${line.what.id}`"
          :class="{ within: line.within }"
          :style="{ transform: `translateY(${start}px)` }"
          :aria-posinset="index + 1"
          :aria-setsize="lines.length"
        >
          <RowButton
            class="line"
            :class="{ chosen: sameOnPlan(chosen, line.what) || (line.what.kind === 'space' && picked?.has(line.what.id)) }"
            :aria-current="sameOnPlan(chosen, line.what) ? 'true' : undefined"
            :aria-pressed="picked && line.what.kind === 'space' ? picked.has(line.what.id) : undefined"
            @click="$emit('choose', line.what)"
          >
            <span class="mono">{{ line.code }}</span>
            <span class="name">{{ line.name }}</span>
            <span v-if="line.work" class="work">{{ line.work }}</span>
            <span v-if="line.off" class="off">not drawn</span>
          </RowButton>
        </li>
      </ul>
    </div>
  </div>
</template>

<style scoped>
.list {
  display: flex;
  flex-direction: column;
  gap: 8px;
  min-height: 0;
}
.scrolled {
  overflow-y: auto;
  min-height: 0;
  flex: 1;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  position: relative;
}
li {
  position: absolute;
  inset: 0 0 auto;
  height: 29px;
}
.line {
  display: flex;
  width: 100%;
  gap: 8px;
  padding: 4px 6px;
  text-align: left;
  align-items: baseline;
}
.within .line {
  padding-left: 20px;
}
.name {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.line:hover {
  background: var(--shoal-faint);
}
.chosen {
  background: var(--shoal);
  box-shadow: inset 3px 0 0 var(--tide);
}
.work,
.off {
  font-size: 12px;
  color: var(--ink-soft);
  white-space: nowrap;
}
.work {
  color: var(--ink);
  font-weight: 600;
}
</style>
