<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Station } from '#core/orders'
import { RowButton, PaneSplitter, useKeys, useWidth } from '#web/kit'
import { OrderSheet } from '#web/orders'
import { ContextPane } from '#web/places'
import { RequestSheet } from '#web/requests'
import QueuePane from './QueuePane.vue'
import StationHome from './StationHome.vue'

/** The coordinator's bench: the queue never leaves while a Sheet is open beside it. */
const route = useRoute()
const router = useRouter()
const station = computed(() => route.params.station as Station)
const open = computed(() => (route.params.id ? { type: route.params.type as 'request' | 'order', id: Number(route.params.id) } : null))
const queueWidth = useWidth('queue', 360, 280, 560)
const contextWidth = useWidth('context', 300, 220, 480)
const folded = useLocalStorage('evrix-context-folded', false)
const about = ref<{ placeId?: number; assetId?: number; requestId?: number; orderId?: number }>({})
const leaving = computed(() => !!open.value && about.value[`${open.value.type}Id`] !== open.value.id)
const queue = ref<InstanceType<typeof QueuePane> | null>(null)

const show = (type: 'request' | 'order', id: number) => router.push({ name: 'bench', params: { station: station.value, type, id } })
/** On to the next in the queue; after the last one, to the queue itself. */
function goOn(): void {
  if (!queue.value?.step(1)) void back()
}
const back = () => router.push({ name: 'bench', params: { station: station.value } })

useKeys((key) => {
  if (key === 'ArrowDown' || key === 'ArrowUp') {
    queue.value?.step(key === 'ArrowDown' ? 1 : -1)
    return true
  }
  const active = document.activeElement
  if (key === 'Enter' && (active?.closest('.queue ol') || !active?.matches('a, button, summary'))) {
    document.getElementById('sheet')?.focus()
    return true
  }
  if (key === 'Escape') {
    queue.value?.focusRow()
    return true
  }
})
</script>

<template>
  <div class="bench" :class="{ open: !!open }">
    <QueuePane ref="queue" class="queue" :style="{ width: `${queueWidth.width.value}px` }" :station="station" :open="open" @show="show" />
    <PaneSplitter
      class="edge"
      label="Width of the queue"
      toward="right"
      :width="queueWidth.width.value"
      :least="queueWidth.least"
      :most="queueWidth.most"
      @resize="queueWidth.set"
    />
    <section id="sheet" class="sheet" tabindex="-1" aria-label="Sheet">
      <NButton v-if="open" class="back" @click="back">Back to the queue</NButton>
      <RequestSheet v-if="open?.type === 'request'" :id="open.id" :key="`r${open.id}`" @about="about = $event" @show="show" @next="goOn" />
      <OrderSheet v-else-if="open?.type === 'order'" :id="open.id" :key="`o${open.id}`" @about="about = $event" />
      <StationHome v-else :station="station" />
    </section>
    <template v-if="open">
      <PaneSplitter
        v-if="!folded"
        class="edge"
        label="Width of what is known"
        toward="left"
        :width="contextWidth.width.value"
        :least="contextWidth.least"
        :most="contextWidth.most"
        @resize="contextWidth.set"
      />
      <aside class="context" :class="{ folded }" :style="{ width: folded ? '28px' : `${contextWidth.width.value}px` }" aria-label="What is known">
        <RowButton class="plain fold" :aria-expanded="!folded" :aria-label="folded ? 'Unfold what is known' : 'Fold what is known'" @click="folded = !folded">
          {{ folded ? '‹' : '›' }}
        </RowButton>
        <ContextPane v-if="!folded" :about="about" :station="station" :leaving="leaving" />
      </aside>
    </template>
  </div>
</template>

<style scoped>
.bench {
  height: 100%;
  display: flex;
  min-height: 0;
}
.queue {
  flex: none;
  background: var(--sheet);
}
.sheet {
  flex: 1;
  min-width: 0;
  overflow: auto;
  background: var(--sheet);
  outline: none;
  position: relative;
  scroll-padding-top: 150px;
}
.sheet:focus-visible {
  box-shadow: inset 0 0 0 2px var(--tide);
}
.context {
  flex: none;
  overflow: auto;
  background: var(--paper);
  position: relative;
}
.fold {
  position: absolute;
  top: 8px;
  right: 8px;
  width: 20px;
  height: 24px;
  text-align: center;
  color: var(--ink-soft);
  z-index: 1;
}
.back {
  display: none;
  margin: 8px;
}
@media (max-width: 900px) {
  .bench {
    display: block;
    overflow: auto;
  }
  .edge {
    display: none;
  }
  .queue,
  .context {
    width: 100% !important;
  }
  .bench.open .queue {
    display: none;
  }
  .bench:not(.open) .sheet {
    display: none;
  }
  .sheet {
    overflow: visible;
  }
  .back {
    display: inline-flex;
  }
  .fold {
    display: none;
  }
}
</style>
