<script setup lang="ts">
import { computed } from 'vue'
import { setOwnState } from '#contract/orders'
import type { OrderSheet } from '#contract/orders'
import { isSettled } from '#core/orders'
import { call, ListEntry, OwnMark, useSession, useUndo, useVocabulary } from '#web/kit'
import { sayRefusal } from '#web/sheets'
import { ownStateChoices } from './ownStateChoices'

/** How the order stands more exactly, by a state of the site’s own: said, chosen and taken back in the head of its Sheet. */
const props = defineProps<{ order: OrderSheet }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const words = useVocabulary()
void words.ensure()
const undo = useUndo()
const choices = computed(() => ownStateChoices(words.lists?.ownStates, props.order.site.id, props.order.state))
const mayChoose = computed(() => session.can('orders.edit') && !props.order.discarded && !isSettled(props.order.state) && choices.value.length > 0)
const options = computed(() => choices.value.map(({ id, name }) => ({ value: id, label: name })))

async function choose(to: number | null): Promise<void> {
  const { id, version, ownState } = props.order
  if (to === (ownState?.id ?? null)) return
  try {
    const done = await call(setOwnState, { id, version, ownStateId: to })
    undo.say(to ? `${props.order.number}: ${choices.value.find((one) => one.id === to)!.name}.` : `${props.order.number}: ${ownState!.name} no longer.`, () =>
      call(setOwnState, { id, version: done.version, ownStateId: ownState?.id ?? null }).then(() => emit('changed')),
    )
  } catch (error) {
    sayRefusal(error)
  }
  emit('changed')
}
</script>

<template>
  <span v-if="mayChoose" class="own">
    <OwnMark v-if="order.ownState" :mark="order.ownState.mark" />
    <ListEntry
      id="own-state"
      class="pick"
      small
      label-hidden
      clearable
      label="How it stands more exactly"
      placeholder="More exactly …"
      :model-value="order.ownState?.id ?? null"
      :options="options"
      @update:model-value="choose"
    />
  </span>
  <span v-else-if="order.ownState" class="own"><OwnMark :mark="order.ownState.mark" /> {{ order.ownState.name }}</span>
</template>

<style scoped>
.own {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  white-space: nowrap;
}
.pick {
  width: 190px;
}
.pick :deep(.n-form-item-blank) {
  min-height: 0;
}
</style>
