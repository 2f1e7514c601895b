<script setup lang="ts" generic="Rule">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import type { Ref } from 'vue'

/** Rules as sentences; one at a time is opened, changed and kept. */
const props = defineProps<{ id: string; rules: Rule[]; sentence: (rule: Rule) => string; blank: () => Rule; add: string; none: string }>()
const emit = defineEmits<{ save: [Rule[]] }>()
const at = ref(-1)
const draft = ref<Rule | null>(null) as Ref<Rule | null>
const copy = (rule: Rule): Rule => JSON.parse(JSON.stringify(rule)) as Rule

function open(index: number): void {
  at.value = index
  draft.value = index < props.rules.length ? copy(props.rules[index]!) : props.blank()
}
function close(): void {
  draft.value = null
  at.value = -1
}
function keep(): void {
  const next = [...props.rules]
  next[at.value] = draft.value!
  emit('save', next)
}
const drop = (index: number) =>
  emit(
    'save',
    props.rules.filter((_, other) => other !== index),
  )
defineExpose({ close })
</script>

<template>
  <div class="rules">
    <p v-if="!rules.length" class="soft">{{ none }}</p>
    <ul>
      <li v-for="(rule, index) in rules" :key="index">
        <span class="says">{{ sentence(at === index && draft ? draft : rule) }}</span>
        <span v-if="at !== index" class="acts">
          <NButton @click="open(index)">Change</NButton>
          <NButton :aria-label="`Remove: ${sentence(rule)}`" @click="drop(index)">Remove</NButton>
        </span>
      </li>
      <li v-if="draft && at === rules.length">
        <span class="says">{{ sentence(draft) }}</span>
      </li>
    </ul>
    <form v-if="draft" class="edit" :aria-label="add" @submit.prevent="keep" @keydown.ctrl.enter.prevent="keep" @keydown.esc.stop="close">
      <slot :rule="draft" :set="(change: Partial<Rule>) => (draft = { ...draft!, ...change })" />
      <div class="acts">
        <NButton type="primary" attr-type="submit">Keep the rule <kbd>Ctrl Enter</kbd></NButton>
        <NButton @click="close">Leave it</NButton>
      </div>
    </form>
    <NButton v-else class="add" @click="open(rules.length)">{{ add }}</NButton>
  </div>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
.says {
  flex: 1 1 420px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.edit {
  display: grid;
  gap: 12px;
  margin: 8px 0;
  padding: 12px;
  background: var(--shoal-faint);
  border-radius: 6px;
}
.add {
  margin-top: 8px;
}
</style>
