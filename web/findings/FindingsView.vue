<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { listFindings } from '#contract/findings'
import type { FindingRow } from '#contract/findings'
import { call, LoadedPart, useReadAs } from '#web/kit'
import FindingRows from './FindingRows.vue'

/** Everything that was found and waits for an order, the oldest first. */
const pages = ref(1)
const read = useReadAs(
  () => ['findings', pages.value],
  async () => {
    const rows: FindingRow[] = []
    let after: number | null = null
    for (let page = 0; page < pages.value; page++) {
      const answer: { rows: FindingRow[]; next: number | null } = await call(listFindings, after ? { after } : {})
      rows.push(...answer.rows)
      after = answer.next
      if (!after) break
    }
    return { rows, more: after !== null }
  },
  { holds: () => true, touchedBy: ({ kind }) => kind.startsWith('finding.') || kind.startsWith('order.') },
)
const rows = computed(() => read.value.value?.rows ?? [])
</script>

<template>
  <div class="page">
    <header><h1>Findings</h1></header>
    <section aria-label="Waiting for an order">
      <h2>
        Waiting for an order <span v-if="rows.length" class="mono soft">{{ rows.length }}{{ read.value.value?.more ? '+' : '' }}</span>
      </h2>
      <LoadedPart :part="read">
        <FindingRows v-if="rows.length" label="Findings" named :rows="rows" @changed="read.load" />
        <p v-else class="soft">
          Nothing waits. What technicians find on their way and do not put right at once arrives here, and on the Sheet of the order they found it on.
        </p>
        <p v-if="read.value.value?.more"><NButton @click="pages++">More of them</NButton></p>
      </LoadedPart>
    </section>
  </div>
</template>

<style scoped src="../kit/page.css"></style>
