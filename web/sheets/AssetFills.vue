<script setup lang="ts">
import { NRadio, NRadioGroup } from 'naive-ui/es/radio'
import { NButton } from 'naive-ui/es/button'
import { reactive } from 'vue'
import type { AssetSaying } from '#core/orders'
import { DialogBox } from '#web/kit'

/** What the asset says differs from what stands there: both are shown, and the person chooses for each. */
export interface Difference {
  field: AssetSaying
  label: string
  now: string
  says: string
}
const props = defineProps<{ asset: string; differences: Difference[] }>()
const emit = defineEmits<{ choose: [AssetSaying[]]; close: [] }>()
const taken = reactive<Record<string, boolean>>(Object.fromEntries(props.differences.map((one) => [one.field, false])))
const choose = () =>
  emit(
    'choose',
    props.differences.filter((one) => taken[one.field]).map((one) => one.field),
  )
</script>

<template>
  <DialogBox :title="`${asset} says otherwise`" @close="$emit('close')">
    <form class="form" @submit.prevent="choose" @keydown.ctrl.enter.prevent="choose">
      <h1>{{ asset }} says otherwise</h1>
      <p class="soft">Choose for each which to keep. What was empty is filled in.</p>
      <fieldset v-for="(one, index) in differences" :key="one.field">
        <legend>{{ one.label }}</legend>
        <NRadioGroup v-model:value="taken[one.field]" class="pair" :name="one.field" role="radiogroup" :aria-label="one.label">
          <NRadio :value="false" :data-first="index === 0 ? '' : undefined">Keep {{ one.now }}</NRadio>
          <NRadio :value="true">Take {{ one.says }}, as the asset says</NRadio>
        </NRadioGroup>
      </fieldset>
      <p class="acts">
        <NButton type="primary" attr-type="submit">Choose the asset <kbd>Ctrl Enter</kbd></NButton>
        <NButton @click="$emit('close')">Leave the asset as it was</NButton>
      </p>
    </form>
  </DialogBox>
</template>

<style scoped>
.pair {
  display: grid;
  gap: 4px;
}
.form {
  display: grid;
  gap: 12px;
}
fieldset {
  display: grid;
  gap: 4px;
  border: 1px solid var(--line);
  border-radius: 6px;
  margin: 0;
  padding: 6px 12px 10px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
