<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import type { OrderSheet } from '#contract/orders'
import { agreeWindow } from '#contract/windows'
import type { OfferedTime } from '#contract/windows'
import { call, fromLocalField, MomentEntry, TextEntry, toLocalField, useFirstField } from '#web/kit'
import { useLineAct } from '#web/sheets'

/** A time agreed on the telephone, noted by the desk. */
const props = defineProps<{ order: OrderSheet; proposed?: OfferedTime }>()
const emit = defineEmits<{ leave: []; done: [] }>()
const begin = props.order.window ?? props.proposed
const from = ref(begin ? toLocalField(new Date(begin.from)) : '')
const until = ref(begin ? toLocalField(new Date(begin.until)) : '')
const whom = ref(props.order.window?.with ?? props.order.contactName ?? '')
const form = ref<HTMLElement | null>(null)
useFirstField(form)
const { act, at, busy } = useLineAct<unknown>(() => emit('done'))
const asked = computed(() =>
  from.value && until.value ? { from: fromLocalField(from.value).toISOString(), until: fromLocalField(until.value).toISOString() } : null,
)
const send = () =>
  asked.value &&
  act(() => call(agreeWindow, { id: props.order.id, version: props.order.version, ...asked.value!, with: whom.value.trim() }), 'The time is noted.')
</script>

<template>
  <form ref="form" class="form" aria-label="Time agreed" @submit.prevent="send" @keydown.ctrl.enter.prevent="send" @keydown.esc.stop="emit('leave')">
    <div class="row">
      <MomentEntry id="window-from" v-model="from" label="From" :problem="at('from')" required />
      <MomentEntry id="window-until" v-model="until" label="Until" :problem="at('until')" required />
      <TextEntry id="window-with" v-model="whom" label="Agreed with" :max="120" />
    </div>
    <div class="row">
      <NButton type="primary" attr-type="submit" :disabled="busy || !asked">Note it</NButton>
      <NButton @click="emit('leave')">Leave it</NButton>
    </div>
  </form>
</template>

<style scoped src="../stock/form.css"></style>
