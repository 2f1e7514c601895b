<script setup lang="ts">
import { readConversation } from '#contract/requests'
import type { RequestSheet } from '#contract/requests'
import { ProblemNote, useRead, useSession } from '#web/kit'
import { useOpenSheet } from '#web/sheets'
import ConversationBox from './ConversationBox.vue'

const { sheet: it } = useOpenSheet<RequestSheet>()
const session = useSession()
const read = useRead(readConversation, () => ({ id: it.value.id }), { anew: true, touchedBy: ({ requestId }) => requestId === it.value.id })
</script>

<template>
  <ProblemNote v-if="read.problem.value" :problem="read.problem.value" @retry="read.load" />
  <ConversationBox
    v-else-if="read.value.value"
    :request-id="it.id"
    :conversation="read.value.value"
    :may-write="session.can('requests.triage')"
    @written="read.value.value = $event"
  />
  <span v-else class="bones" role="status" aria-label="Loading" />
</template>

<style scoped>
.bones {
  height: 60px;
}
</style>
