<script setup lang="ts">
import { ref } from 'vue'
import { DialogBox } from '#web/kit'
import type { Conflict } from './useSheet'

/** Somebody else changed the same field: both values, and a choice for each. */
const props = defineProps<{ conflict: Conflict; names: Record<string, string>; show?: (field: string, value: unknown) => string }>()
const emit = defineEmits<{ settle: [string[]] }>()
const mine = ref<string[]>(props.conflict.fields.map((one) => one.field))
const text = (field: string, value: unknown) => props.show?.(field, value) ?? (value === null || value === '' ? 'nothing' : String(value))
</script>

<template>
  <DialogBox title="Changed meanwhile" @close="emit('settle', [])">
    <h1>Somebody else changed this too</h1>
    <p class="soft">Nothing of yours is lost. Choose for each field which value stays.</p>
    <fieldset v-for="one in conflict.fields" :key="one.field">
      <legend>{{ names[one.field] ?? one.field }}</legend>
      <label
        ><input type="radio" :name="one.field" :checked="!mine.includes(one.field)" @change="mine = mine.filter((field) => field !== one.field)" /> Theirs:
        <strong>{{ text(one.field, one.theirs) }}</strong></label
      >
      <label
        ><input type="radio" :name="one.field" :checked="mine.includes(one.field)" @change="mine = [...mine, one.field]" /> Yours:
        <strong>{{ text(one.field, one.yours) }}</strong></label
      >
    </fieldset>
    <div class="acts">
      <button class="push first" type="button" @click="emit('settle', mine)">Save this choice</button>
      <button class="push" type="button" @click="emit('settle', [])">Keep all of theirs</button>
    </div>
  </DialogBox>
</template>

<style scoped>
fieldset {
  border: 1px solid var(--line);
  border-radius: 6px;
  margin: 12px 0 0;
  padding: 8px 12px;
  display: grid;
  gap: 6px;
  overflow-wrap: anywhere;
}
.acts {
  display: flex;
  gap: 8px;
  margin-top: 16px;
}
</style>
