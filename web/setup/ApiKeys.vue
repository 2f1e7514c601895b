<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { makeApiKey, revokeApiKey } from '#contract/setup'
import type { IntakeSetup } from '#contract/setup'
import { rowsNamed, ListEntry, TextEntry, call, shortTime } from '#web/kit'

/** Keys of programs that send requests by Open311 GeoReport. */
const props = defineProps<{ setup: IntakeSetup; keep: (change: () => Promise<IntakeSetup>, done: string) => Promise<boolean> }>()
const siteId = ref(props.setup.sites[0]!.id)
const name = ref('')
const made = ref<string | null>(null)
const codeOf = (id: number) => props.setup.sites.find((site) => site.id === id)?.code

async function make(): Promise<void> {
  await props.keep(async () => {
    const answer = await call(makeApiKey, { siteId: siteId.value, name: name.value })
    made.value = answer.key
    name.value = ''
    return answer.setup
  }, 'The key is made.')
}
</script>

<template>
  <section aria-label="API keys">
    <h2>Programs that send requests</h2>
    <p class="soft">Open311 GeoReport v2 at <span class="mono">/open311/v2</span>, with one of these keys.</p>
    <table v-if="setup.apiKeys.length" class="plain-table">
      <thead>
        <tr>
          <th>Name</th>
          <th>Site</th>
          <th>Made</th>
          <th>Last used</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="key in setup.apiKeys" :key="key.id">
          <td>{{ key.name }}</td>
          <td class="mono">{{ codeOf(key.siteId) }}</td>
          <td class="mono">{{ shortTime(key.createdAt) }}</td>
          <td class="mono">{{ key.lastUsedAt ? shortTime(key.lastUsedAt) : 'never' }}</td>
          <td>
            <span v-if="key.revoked" class="soft">taken back</span>
            <NButton v-else @click="keep(() => call(revokeApiKey, { id: key.id }), `${key.name} is refused from now on.`)"> Take back </NButton>
          </td>
        </tr>
      </tbody>
    </table>
    <form class="make" @submit.prevent="make">
      <TextEntry id="key-name" v-model="name" label="Which program" :max="80" required />
      <ListEntry id="key-site" label="Site" :model-value="siteId" :options="rowsNamed(setup.sites)" @update:model-value="siteId = $event ?? siteId" />
      <NButton attr-type="submit">Make a key</NButton>
    </form>
    <p v-if="made" class="made" role="status">
      The key, shown this once: <code class="mono">{{ made }}</code>
    </p>
  </section>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.make {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: end;
}
.made {
  padding: 10px 12px;
  background: var(--shoal-faint);
  border-radius: 6px;
  overflow-wrap: anywhere;
}
</style>
