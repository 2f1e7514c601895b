<script setup lang="ts">
import { readRequestTimeline } from '#contract/requests'
import type { RequestSheet } from '#contract/requests'
import { TimelineSection, useOpenSheet } from '#web/sheets'

const { sheet: it } = useOpenSheet<RequestSheet>()
</script>

<template>
  <TimelineSection
    :id="it.id"
    :endpoint="readRequestTimeline"
    :touched-by="({ orderId, requestId }) => requestId === it.id || it.orders.some((one) => one.id === orderId)"
  />
</template>
