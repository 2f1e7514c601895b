<script setup lang="ts">
import { NRadio, NRadioGroup } from 'naive-ui/es/radio'
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { DialogBox } from '#web/kit'
import type { Conflict } from './useSheet'

/** Somebody else changed the same field: both values, and a choice for each. */
const props = defineProps<{ conflict: Conflict; names: Record<string, string>; show?: (field: string, value: unknown) => string }>()
const emit = defineEmits<{ settle: [string[]] }>()
const mine = ref<string[]>(props.conflict.fields.map((one) => one.field))
const text = (field: string, value: unknown) => props.show?.(field, value) ?? (value === null || value === '' ? 'nothing' : String(value))
const keep = (field: string, yours: boolean) => (mine.value = yours ? [...mine.value, field] : mine.value.filter((one) => one !== field))
</script>

<template>
  <DialogBox title="Changed meanwhile" @close="emit('settle', [])">
    <h1>Somebody else changed this too</h1>
    <p class="soft">Nothing of yours is lost. Choose for each field which value stays.</p>
    <fieldset v-for="one in conflict.fields" :key="one.field">
      <legend>{{ names[one.field] ?? one.field }}</legend>
      <NRadioGroup
        class="pair"
        :name="one.field"
        :value="mine.includes(one.field)"
        role="radiogroup"
        :aria-label="names[one.field] ?? one.field"
        @update:value="(yours: boolean) => keep(one.field, yours)"
      >
        <NRadio :value="false"
          >Theirs: <strong>{{ text(one.field, one.theirs) }}</strong></NRadio
        >
        <NRadio :value="true"
          >Yours: <strong>{{ text(one.field, one.yours) }}</strong></NRadio
        >
      </NRadioGroup>
    </fieldset>
    <div class="acts">
      <NButton type="primary" @click="emit('settle', mine)">Save this choice</NButton>
      <NButton @click="emit('settle', [])">Keep all of theirs</NButton>
    </div>
  </DialogBox>
</template>

<style scoped>
.pair {
  display: grid;
  gap: 6px;
}
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
