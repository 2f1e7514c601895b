<script setup lang="ts" generic="Sheet extends { state: string }">
import { computed } from 'vue'
import { jumpTo } from '#web/kit'
import type { SheetSection } from './openSheet'

/** The sections of a Sheet, those of what is decided now first; `index` is the line that leads to each. */
const props = defineProps<{ sheet: Sheet; sections: readonly SheetSection<Sheet>[]; index?: boolean }>()
const isNow = (section: SheetSection<Sheet>) => section.opensAt?.includes(props.sheet.state) ?? false
const shown = computed(() => {
  const all = props.sections.filter((section) => section.shown?.(props.sheet) ?? true)
  return [...all.filter(isNow), ...all.filter((section) => !isNow(section))].map((section) => {
    const now = isNow(section)
    return { ...section, now, says: now ? null : (section.empty?.(props.sheet) ?? null) }
  })
})
</script>

<template>
  <nav v-if="index" class="sheet-index" aria-label="On this Sheet">
    <a v-for="one in shown" :key="one.anchor" :href="`#s-${one.anchor}`" @click.prevent="jumpTo(one.anchor)">{{ one.title }}</a>
  </nav>
  <template v-else>
    <section
      v-for="one in shown"
      :id="`s-${one.anchor}`"
      :key="one.anchor"
      class="sheet-section"
      :class="{ now: one.now, brief: one.says }"
      :data-field="one.field"
      :aria-label="one.title"
      tabindex="-1"
    >
      <h2>{{ one.title }}</h2>
      <p v-if="one.says" class="soft">{{ one.says }}</p>
      <component :is="one.component" v-else :now="one.now" />
    </section>
  </template>
</template>

<style>
.sheet-index {
  display: flex;
  gap: 14px;
  font-size: 13px;
  overflow-x: auto;
  white-space: nowrap;
}
.sheet-index a {
  text-decoration: none;
}
.sheet-index a:hover {
  text-decoration: underline;
}
.sheet-section {
  /* What is there for readers of the screen alone stays within it, rather than making the page longer. */
  position: relative;
  display: grid;
  gap: 10px;
  grid-template-columns: minmax(0, 1fr);
  scroll-margin-top: 170px;
  outline: none;
}
.sheet-section > h2 {
  padding-bottom: 4px;
  border-bottom: 1px solid var(--line);
}
.sheet-section.brief {
  grid-template-columns: 122px minmax(0, 1fr);
  align-items: baseline;
  border-top: 1px solid var(--line);
  padding-top: 6px;
}
.sheet-section.brief > h2 {
  border: 0;
  padding: 0;
}
</style>
