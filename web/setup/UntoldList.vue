<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { listUntold, tellAgain } from '#contract/setup'
import { call, longTime, useLoading, useUndo } from '#web/kit'

/** Events of which nobody could be told: why, and once more. Nothing is shown while there are none. */
const untold = useLoading(() => call(listUntold, {}))
void untold.load()
const said = useUndo()
async function again(id: number): Promise<void> {
  untold.value.value = await call(tellAgain, { id })
  said.say('It is tried again; what fails comes back here.')
}
</script>

<template>
  <section v-if="untold.value.value?.rows.length" aria-label="Set aside">
    <h2>Nobody could be told of these</h2>
    <p class="soft">What happened is kept and shown; its mails and notices could not be written. Everything else went on.</p>
    <table class="plain-table">
      <thead>
        <tr>
          <th>When</th>
          <th>What</th>
          <th>Why not</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in untold.value.value.rows" :key="row.id">
          <td class="mono">{{ longTime(row.at) }}</td>
          <td>
            <span class="mono">{{ row.kind }}</span> {{ row.number }}, {{ row.actorName }}
          </td>
          <td>{{ row.error }}</td>
          <td><NButton size="small" @click="again(row.id)">Send again</NButton></td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped src="../kit/page.css"></style>
