<script setup lang="ts">
import { peekRow } from '#contract/lists'
import type { ListKind } from '#core/lists'
import { longTime, useRead } from '#web/kit'

/** The essentials of a row, beside the list and without leaving it. */
const props = defineProps<{ kind: ListKind; id: number }>()
const peek = useRead(peekRow, () => ({ kind: props.kind, id: props.id }), { holds: true })
</script>

<template>
  <aside v-if="peek.value.value" class="peek" role="status" aria-label="Essentials">
    <p>
      <span class="mono">{{ peek.value.value.number }}</span> <strong>{{ peek.value.value.summary }}</strong>
    </p>
    <p class="text">{{ peek.value.value.description }}</p>
    <dl>
      <div v-for="fact in peek.value.value.facts" :key="fact.label">
        <dt>{{ fact.label }}</dt>
        <dd>{{ fact.words }}</dd>
      </div>
    </dl>
    <p v-if="peek.value.value.last" class="soft">
      Last: {{ peek.value.value.last.who }}, {{ longTime(peek.value.value.last.at)
      }}<template v-if="peek.value.value.last.reason">: {{ peek.value.value.last.reason }}</template>
    </p>
  </aside>
</template>

<style scoped>
.peek {
  position: fixed;
  right: 20px;
  bottom: 20px;
  z-index: 30;
  width: min(420px, calc(100vw - 40px));
  max-height: 60vh;
  overflow: auto;
  display: grid;
  gap: 8px;
  padding: 12px 14px;
  background: var(--sheet);
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  box-shadow: 0 8px 30px rgb(0 0 0 / 22%);
  font-size: 13px;
  pointer-events: none;
}
.text {
  white-space: pre-line;
}
dl {
  margin: 0;
  display: grid;
  gap: 2px;
}
dl div {
  display: grid;
  grid-template-columns: 96px 1fr;
  gap: 8px;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
</style>
