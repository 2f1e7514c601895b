<script setup lang="ts">
import { readOrderTimeline } from '#contract/orders'
import type { OrderSheet } from '#contract/orders'
import { TimelineSection, useOpenSheet } from '#web/sheets'

const { sheet: it } = useOpenSheet<OrderSheet>()
</script>

<template>
  <TimelineSection
    :id="it.id"
    :endpoint="readOrderTimeline"
    :touched-by="({ orderId, requestId }) => orderId === it.id || it.requests.some((one) => one.id === requestId)"
  />
</template>
