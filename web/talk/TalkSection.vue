<script setup lang="ts">
import { ref } from 'vue'
import { readAttachment } from '#contract/orders'
import type { OrderSheet } from '#contract/orders'
import { addTalkPhoto, readTalk, sayOnOrder } from '#contract/talk'
import { isOver } from '#core/orders'
import { address, call, CallProblem, freshKey, LoadedPart, useRead, useSession } from '#web/kit'
import { useOpenSheet } from '#web/sheets'
import TalkRows from './TalkRows.vue'
import WriteForm from './WriteForm.vue'
import type { Written } from './written'

/** What was said on an order: with our people on it, with its vendor, with whoever reported it. */
const { sheet } = useOpenSheet<OrderSheet>()
const session = useSession()
const read = useRead(readTalk, () => ({ orderId: sheet.value.id }), {
  holds: true,
  touchedBy: ({ orderId, kind }) => orderId === sheet.value.id || kind === 'request.heard' || kind === 'request.message',
})
const busy = ref(false)
const problem = ref<CallProblem | null>(null)
const form = ref<InstanceType<typeof WriteForm> | null>(null)
/** A repeat after a lost answer says the same, not once more. */
let mark = freshKey()

async function say({ audience, visitId, text, photos }: Written): Promise<void> {
  busy.value = true
  problem.value = null
  const orderId = sheet.value.id
  try {
    read.value.value = await call(sayOnOrder, { orderId, mark, audience, text, ...(visitId === null ? {} : { visitId }) }, { key: mark })
    for (const photo of photos) read.value.value = await call(addTalkPhoto, { orderId, mark }, { file: photo })
    form.value?.clear()
    mark = freshKey()
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    problem.value = error
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <LoadedPart :part="read">
    <template v-if="read.value.value">
      <TalkRows v-if="read.value.value.rows.length" named :rows="read.value.value.rows" :url-of="(id) => address(readAttachment, { id })" />
      <WriteForm
        v-if="session.can('orders.dispatch') && !isOver(sheet.state)"
        ref="form"
        :to="read.value.value.to"
        :about="`order-${sheet.id}`"
        :busy="busy"
        :problem="problem"
        @say="say"
      />
    </template>
  </LoadedPart>
</template>
