<script setup lang="ts">
import { NRadio, NRadioGroup } from 'naive-ui/es/radio'
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { changeView, saveView } from '#contract/lists'
import type { Sharing, ViewRow } from '#contract/lists'
import type { ListKind } from '#core/lists'
import { TextEntry, call, CallProblem, DialogBox, dropDrafts, useDraft } from '#web/kit'
import { useViews } from './useViews'

/** Keeps what a list shows under a name: as a new view, or in the place of one’s own. */
const props = defineProps<{ kind: ListKind; address: string; view: ViewRow | null }>()
const emit = defineEmits<{ close: []; saved: [key: string, name: string] }>()
const store = useViews()
const over = ref(!!props.view?.mine)
const name = useDraft(() => `view-${props.kind}-${props.view?.key ?? 'new'}`, props.view?.mine ? props.view.name : '')
const sharedWith = ref<Sharing>(props.view?.mine ? props.view.sharedWith : 'nobody')
const problem = ref<CallProblem | null>(null)
const busy = ref(false)
const at = (field: string) => problem.value?.reasons.find((reason) => reason.field === field)?.sentence
const team = computed(() => store.views?.team ?? null)

async function save(): Promise<void> {
  problem.value = null
  busy.value = true
  const fields = { name: name.value.trim(), kind: props.kind, address: props.address, sharedWith: sharedWith.value }
  try {
    if (over.value && props.view?.mine) {
      store.take(await call(changeView, { id: props.view.id!, version: props.view.version, ...fields }))
      emit('saved', props.view.key, fields.name)
    } else {
      const answer = await call(saveView, fields)
      store.take(answer)
      emit('saved', answer.key, fields.name)
    }
    dropDrafts(`view-${props.kind}-`)
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    problem.value = error
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <DialogBox title="Save this view" @close="$emit('close')">
    <form class="form" @submit.prevent="save" @keydown.ctrl.enter.prevent="save">
      <h1>Save this view</h1>
      <NRadioGroup v-if="view?.mine" v-model:value="over" class="choices" role="radiogroup" aria-label="Where to">
        <NRadio :value="true">Change “{{ view.name }}”</NRadio>
        <NRadio :value="false">Keep that and save another</NRadio>
      </NRadioGroup>
      <TextEntry id="view-name" v-model="name" label="Name" :max="60" :problem="at('name')" data-first />
      <NRadioGroup v-model:value="sharedWith" class="choices" role="radiogroup" aria-label="Who can open it">
        <NRadio value="nobody">You alone</NRadio>
        <NRadio value="team" :disabled="!team">{{ team ? `Your team, ${team.name}` : 'Your team (you are in none)' }}</NRadio>
        <NRadio value="all">Everybody at the Desk</NRadio>
      </NRadioGroup>
      <p class="soft">Others see the same filters, order and columns, with what they may see in it. “Me” and “my team” mean whoever looks.</p>
      <p v-if="problem && !at('name')" class="problem" role="alert">{{ problem.reasons[0]?.sentence ?? problem.message }}</p>
      <p class="acts">
        <NButton type="primary" attr-type="submit" :disabled="busy">Save <kbd>Ctrl Enter</kbd></NButton>
        <NButton @click="$emit('close')">Leave it</NButton>
      </p>
    </form>
  </DialogBox>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
}
.choices {
  display: grid;
  gap: 4px;
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
