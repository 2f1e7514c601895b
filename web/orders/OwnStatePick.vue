<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NPopselect } from 'naive-ui/es/popselect'
import { computed, h } from 'vue'
import { setOwnState } from '#contract/orders'
import type { OrderSheet } from '#contract/orders'
import { isSettled } from '#core/orders'
import { call, OwnMark, useSession, useUndo, useVocabulary } from '#web/kit'
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
/** Nothing is a choice like the others. */
const NONE = 0
const options = computed(() => [
  ...choices.value.map(({ id, name, mark }) => ({
    value: id,
    label: () => h('span', { class: 'own-choice' }, [h(OwnMark, { mark }), ` ${name}`]),
  })),
  { value: NONE, label: 'Nothing more' },
])

async function choose(chosen: number): Promise<void> {
  const { id, version, ownState } = props.order
  const to = chosen === NONE ? null : chosen
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
  <NPopselect v-if="mayChoose" trigger="click" :value="order.ownState?.id ?? NONE" :options="options" @update:value="choose">
    <NButton size="tiny" class="pick" :aria-label="`More exactly: ${order.ownState?.name ?? 'nothing more'}. Choose`">
      <OwnMark v-if="order.ownState" :mark="order.ownState.mark" />&nbsp;{{ order.ownState?.name ?? 'More exactly …' }}
    </NButton>
  </NPopselect>
  <span v-else-if="order.ownState" class="own"><OwnMark :mark="order.ownState.mark" /> {{ order.ownState.name }}</span>
</template>

<style scoped>
.own {
  white-space: nowrap;
}
</style>
