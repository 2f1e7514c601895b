<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { OPEN_TRANSFER_STATES } from '#core/assets'
import { ProblemNote } from '#web/kit'
import { useOpenSheet } from '#web/sheets'
import AskTransfer from './AskTransfer.vue'
import TransferList from './TransferList.vue'
import { useTransfers } from './transfers'

/** Where an asset went and where it is asked to go. */
const { sheet: it, reload } = useOpenSheet<{ id: number; state: string; mayEdit: boolean; site: { id: number } | null }>()
const read = useTransfers(() => it.value.id)
const rows = computed(() => read.value.value?.rows ?? [])
const mayAsk = computed(
  () => it.value.mayEdit && it.value.state === 'in_use' && read.value.value !== null && !rows.value.some((row) => OPEN_TRANSFER_STATES.includes(row.state)),
)
const asking = ref(false)
async function changed(): Promise<void> {
  asking.value = false
  await Promise.all([read.load(), reload()])
}
</script>

<template>
  <ProblemNote v-if="read.problem.value" :problem="read.problem.value" @retry="read.load" />
  <template v-else-if="read.value.value">
    <TransferList v-if="rows.length" :rows="rows" @moved="changed" />
    <p v-else-if="!asking" class="soft">It has stood where it stands since it was entered.</p>
    <AskTransfer v-if="asking" :asset-id="it.id" :site-id="it.site!.id" :sites="read.value.value.sites" @asked="changed" @close="asking = false" />
    <p v-else-if="mayAsk"><NButton size="small" @click="asking = true">Ask for a transfer</NButton></p>
  </template>
</template>
