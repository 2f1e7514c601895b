<script setup lang="ts">
import { computed } from 'vue'
import { OPEN_TRANSFER_STATES } from '#core/assets'
import { ProblemNote } from '#web/kit'
import TransferList from './TransferList.vue'
import { useTransfers } from './transfers'

/** Assets that are asked for, lent or went: what waits for an answer first. */
const read = useTransfers()
const rows = computed(() => read.value.value?.rows ?? [])
const open = computed(() => rows.value.filter((row) => OPEN_TRANSFER_STATES.includes(row.state)))
const over = computed(() => rows.value.filter((row) => !OPEN_TRANSFER_STATES.includes(row.state)))
</script>

<template>
  <div class="page">
    <header><h1>Transfers</h1></header>
    <ProblemNote v-if="read.problem.value" :problem="read.problem.value" @retry="read.load" />
    <div v-else-if="!read.value.value" class="bones wait" />
    <template v-else>
      <section aria-label="Asked for and lent">
        <h2>Asked for and lent</h2>
        <TransferList v-if="open.length" named :rows="open" @moved="read.load" />
        <p v-else class="soft">Nothing is asked for or lent. A transfer is asked for on the Portrait of an asset, under Transfers.</p>
      </section>
      <section v-if="over.length" aria-label="Over">
        <h2>Over</h2>
        <TransferList named :rows="over" @moved="read.load" />
      </section>
    </template>
  </div>
</template>

<style scoped src="../kit/page.css"></style>
