<script setup lang="ts">
import { RowButton, TextEntry } from '#web/kit'
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import type { CounterCategory } from '#contract/requests'
import { foldText } from '#core/kit'

/** What it is about: a short tree, or found by a word. */
const props = defineProps<{ categories: CounterCategory[]; problem?: string; needed: boolean }>()
const chosen = defineModel<number | null>({ required: true })
const text = ref('')
const opened = ref<number | null>(null)
const current = computed(() => props.categories.find((one) => one.id === chosen.value) ?? null)
const under = (id: number | null) => props.categories.filter((one) => one.parentId === id)
const parentName = (one: CounterCategory) => props.categories.find((other) => other.id === one.parentId)?.name
const shown = computed(() => {
  const words = foldText(text.value).split(' ').filter(Boolean)
  if (!words.length) return under(opened.value)
  return props.categories.filter(
    (one) => !under(one.id).length && words.every((word) => foldText(`${one.name} ${one.hint ?? ''} ${parentName(one) ?? ''}`).includes(word)),
  )
})

function press(one: CounterCategory): void {
  if (under(one.id).length && !text.value) opened.value = one.id
  else {
    chosen.value = one.id
    text.value = ''
  }
}
</script>

<template>
  <div v-if="current" class="picked">
    <p>
      <strong>{{ current.name }}</strong> <span v-if="parentName(current)" class="label">{{ parentName(current) }}</span>
    </p>
    <NButton @click="chosen = null">Choose something else</NButton>
  </div>
  <div v-else class="field">
    <TextEntry id="category-text" v-model="text" kind="search" autocomplete="off" :label="`Find by a word${needed ? ' (needed)' : ', or leave it to us'}`" />
    <NButton v-if="opened && !text" class="back" @click="opened = null">All kinds</NButton>
    <ul v-if="shown.length" class="found kinds" aria-label="Kinds">
      <li v-for="one in shown" :key="one.id">
        <RowButton class="plain" @click="press(one)">
          <strong>{{ one.name }}</strong><template v-if="one.hint"
            ><br /><span class="label">{{ one.hint }}</span></template
          >
        </RowButton>
      </li>
    </ul>
    <NButton v-if="opened && !text" class="back" @click="chosen = opened">None of these</NButton>
    <p v-if="!shown.length" class="label">Nothing is called that. Leave it out, and say it in your own words.</p>
  </div>
  <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
</template>

<style scoped>
.picked {
  display: grid;
  gap: 4px;
  justify-items: start;
}
@media (min-width: 760px) {
  .kinds {
    display: grid;
    grid-template-columns: 1fr 1fr;
  }
}
.back {
  justify-self: start;
}
</style>
