<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { useRouter } from 'vue-router'
import { isRegister } from '#core/lists'
import type { ListKind } from '#core/lists'
import { PaneSplitter, useWidth } from '#web/kit'
import { OrderSheet } from '#web/orders'
import { RecordPortrait } from '#web/portraits'
import { RequestSheet } from '#web/requests'

/** The row that is open, beside the list: the Sheet of an order or a request, or the Portrait of a record. */
defineProps<{ kind: ListKind; id: number }>()
const emit = defineEmits<{ close: []; next: [] }>()
const router = useRouter()
const { width, least, most, set } = useWidth('list-sheet', 620, 420, 900)
</script>

<template>
  <PaneSplitter label="Width of the Sheet" toward="left" :width="width" :least="least" :most="most" @resize="set" />
  <section id="list-sheet" class="sheet" tabindex="-1" :aria-label="isRegister(kind) ? 'Portrait' : 'Sheet'" :style="{ width: `${width}px` }">
    <p class="leave">
      <NButton text type="primary" class="link" @click="emit('close')"
        >Close the {{ isRegister(kind) ? 'Portrait' : 'Sheet' }} <kbd class="mono">Esc</kbd></NButton
      >
    </p>
    <RecordPortrait v-if="isRegister(kind)" :id="id" :key="`${kind}${id}`" :register="kind" />
    <OrderSheet v-else-if="kind === 'orders'" :id="id" :key="`o${id}`" />
    <RequestSheet v-else :id="id" :key="`r${id}`" @next="emit('next')" @show="(type, other) => router.push(`/desk/triage/${type}/${other}`)" />
  </section>
</template>

<style scoped>
.sheet {
  flex: none;
  max-width: 70%;
  overflow: auto;
  background: var(--sheet);
  outline: none;
  scroll-padding-top: 150px;
}
.sheet:focus-visible {
  box-shadow: inset 0 0 0 2px var(--tide);
}
.leave {
  padding: 6px 16px 0;
  font-size: 12px;
}
@media (max-width: 900px) {
  .sheet {
    width: 100% !important;
    max-width: none;
  }
}
</style>
