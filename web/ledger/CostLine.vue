<script setup lang="ts">
import type { OrderSheet } from '#contract/orders'
import { formatMinor } from '#core/kit'

/** Cost so far beside the estimate, in a sentence. */
defineProps<{ sheet: OrderSheet }>()
</script>

<template>
  <p>
    Cost so far <strong class="mono violet">{{ formatMinor(sheet.costMinor) }}</strong> beside an estimate of
    <span class="mono">{{ sheet.estimateMinor === null ? 'nothing' : formatMinor(sheet.estimateMinor) }}</span> {{ sheet.site.currency
    }}<template v-if="sheet.estimateMinor && sheet.costMinor > sheet.estimateMinor"
      >, <span class="wrong">{{ formatMinor(sheet.costMinor - sheet.estimateMinor) }} over</span></template
    >.
  </p>
</template>

<style scoped>
.wrong {
  color: var(--buoy);
}
</style>
