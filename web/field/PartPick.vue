<script setup lang="ts">
import { NRadio, NRadioGroup } from 'naive-ui/es/radio'
import { ref } from 'vue'
import { findParts } from '#contract/field'
import { call, DecimalField, TextEntry, useSoon } from '#web/kit'

/** A part, found by name or code, and how many of it; told to the form it stands in. */
const props = defineProps<{ id: string; problemAt: (field: string) => string | undefined }>()
const partId = defineModel<number | null>({ required: true })
const quantity = defineModel<string>('quantity', { required: true })
const text = ref('')
const parts = ref<{ id: number; code: string; name: string; unit: string; inStock: string }[]>([])
const look = useSoon(async () => (parts.value = (await call(findParts, { q: text.value })).rows), 150)
look()
const quantityField = ref<InstanceType<typeof DecimalField> | null>(null)
/** Takes what is typed; false where it can mean nothing. */
defineExpose({ leave: () => quantityField.value!.leave() })
</script>

<template>
  <TextEntry :id="`${props.id}-text`" v-model="text" label="Part of name or code" kind="search" @input="look" />
  <NRadioGroup v-model:value="partId" class="list" :name="props.id" role="radiogroup" aria-label="Parts">
    <NRadio v-for="part in parts" :key="part.id" :value="part.id">
      {{ part.name }} <span class="label mono">{{ part.code }}</span><br /><span class="label">{{ Number(part.inStock) }} {{ part.unit }} in stock</span>
    </NRadio>
  </NRadioGroup>
  <DecimalField
    :id="`${props.id}-quantity`"
    ref="quantityField"
    label="How many"
    kind="quantity"
    required
    :value="quantity"
    :problem="problemAt('quantity')"
    @save="quantity = $event as string"
  />
</template>

<style scoped>
.list {
  display: grid;
  max-height: 260px;
  overflow: auto;
}
.list > * {
  min-height: 48px;
  align-items: center;
}
</style>
