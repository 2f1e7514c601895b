<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { askTransfer } from '#contract/assets'
import type { TransferSheet } from '#contract/assets'
import { TRANSFER_KIND_NAMES, TRANSFER_KINDS } from '#core/assets'
import { call, CallProblem, ChoiceEntry, DraftNote, ListEntry, MomentEntry, named, PickField, placeChoices, TextEntry, useFormDraft, useUndo } from '#web/kit'

/** Asks for an asset to go elsewhere; whoever answers there agrees to it. */
const props = defineProps<{ assetId: number; siteId: number; sites: TransferSheet['sites'] }>()
const emit = defineEmits<{ asked: []; close: [] }>()
const undo = useUndo()
const { form, kept, drop } = useFormDraft(`transfer-of-${props.assetId}`, {
  kind: 'move' as (typeof TRANSFER_KINDS)[number],
  toSiteId: props.siteId,
  placeId: null as number | null,
  placeName: '',
  reason: '',
  returnBy: '',
})
const problem = ref<CallProblem | null>(null)
const busy = ref(false)
const place = computed(() => (form.placeId ? { value: form.placeId, label: form.placeName } : null))
const loose = computed(() => (problem.value?.reasons ?? []).filter((reason) => !reason.field))

async function ask(): Promise<void> {
  if (busy.value) return
  busy.value = true
  problem.value = null
  const { kind, toSiteId, placeId, reason, returnBy } = form
  try {
    await call(askTransfer, {
      assetId: props.assetId,
      kind,
      toSiteId,
      reason,
      ...(placeId ? { toPlaceId: placeId } : {}),
      ...(kind === 'loan' && returnBy ? { returnBy } : {}),
    })
    drop()
    undo.say('It is asked for. Whoever answers there decides.')
    emit('asked')
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    problem.value = error
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <form class="ask" aria-label="Ask for a transfer" @submit.prevent="ask" @keydown.ctrl.enter.prevent="ask" @keydown.esc.stop="emit('close')">
    <DraftNote :kept="kept" @drop="drop" />
    <div class="grid">
      <ChoiceEntry id="transfer-kind" v-model="form.kind" label="It goes" :options="named(TRANSFER_KINDS, TRANSFER_KIND_NAMES)" />
      <ListEntry
        v-if="sites.length > 1"
        id="transfer-site"
        v-model="form.toSiteId"
        label="To the site"
        :options="sites.map((site) => ({ value: site.id, label: site.name }))"
        :problem="problem?.at('toSiteId')"
      />
      <PickField
        id="transfer-to"
        label="To the place"
        :value="form.placeId"
        :current="place"
        :find="placeChoices"
        clearable
        :problem="problem?.at('toPlaceId')"
        @pick="(id, label) => ((form.placeId = id as number | null), (form.placeName = id ? label : ''))"
      />
      <MomentEntry v-if="form.kind === 'loan'" id="transfer-back" v-model="form.returnBy" day label="Back by (needed)" :problem="problem?.at('returnBy')" />
    </div>
    <TextEntry id="transfer-why" v-model="form.reason" label="Why (needed)" :max="2000" :problem="problem?.at('reason')" />
    <p v-for="one in loose" :key="one.code" class="problem" role="alert">{{ one.sentence }}</p>
    <p class="acts">
      <NButton type="primary" size="small" attr-type="submit" :loading="busy">Ask for it</NButton>
      <NButton size="small" @click="emit('close')">Leave it</NButton>
    </p>
  </form>
</template>

<style scoped>
.ask {
  display: grid;
  gap: 10px;
  padding: 10px 12px;
  background: var(--shoal-faint);
  border-radius: 6px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 220px), 1fr));
  gap: 10px 14px;
}
.acts {
  display: flex;
  gap: 8px;
}
.problem {
  color: var(--buoy);
}
</style>
