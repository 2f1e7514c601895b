<script setup lang="ts">
import { NCheckbox, NCheckboxGroup } from 'naive-ui/es/checkbox'
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { copySiteIntake, editSiteIntake } from '#contract/setup'
import type { IntakeSetup, SiteIntake } from '#contract/setup'
import { ASKING, ASKING_NAMES, COUNTER_FIELD_NAMES, COUNTER_FIELDS, fieldChanges } from '#core/requests'
import type { Asking, CounterField } from '#core/requests'
import { named, ChoiceEntry, call } from '#web/kit'

const props = defineProps<{ setup: IntakeSetup; keep: (change: () => Promise<IntakeSetup>, done: string) => Promise<boolean> }>()
/** The site being copied from, while what it would change is looked at. */
const copying = ref<SiteIntake | null>(null)
const chosen = ref<number[]>([])
const others = computed(() => props.setup.sites.filter((one) => one.id !== copying.value?.id))
const changesAt = (to: SiteIntake) => fieldChanges(to.fields, copying.value!.fields)

const save = (site: SiteIntake, change: Pick<SiteIntake, 'fields'>) =>
  props.keep(() => call(editSiteIntake, { id: site.id, ...change }), `${site.code} is saved; the Counter asks like this from now on.`)
const ask = (site: SiteIntake, field: CounterField, asking: Asking) => save(site, { fields: { ...site.fields, [field]: asking } })

function begin(site: SiteIntake): void {
  copying.value = site
  chosen.value = others.value.filter((one) => changesAt(one).length).map((one) => one.id)
}
async function copy(): Promise<void> {
  const from = copying.value!
  if (await props.keep(() => call(copySiteIntake, { fromId: from.id, toIds: chosen.value }), `${from.code} is copied.`)) copying.value = null
}
</script>

<template>
  <section aria-label="What the Counter asks">
    <h2>What the Counter asks</h2>
    <p class="soft">Place, summary and description are always asked.</p>
    <table class="plain-table">
      <thead>
        <tr>
          <th>Field</th>
          <th v-for="site in setup.sites" :key="site.id">
            <span class="mono">{{ site.code }}</span> {{ site.name }}
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="field in COUNTER_FIELDS" :key="field">
          <td>{{ COUNTER_FIELD_NAMES[field] }}</td>
          <td v-for="site in setup.sites" :key="site.id">
            <ChoiceEntry
              :id="`asks-${field}-${site.id}`"
              label-hidden
              :label="`${COUNTER_FIELD_NAMES[field]} at ${site.code}`"
              :model-value="site.fields[field]"
              :options="named(ASKING, ASKING_NAMES)"
              @update:model-value="$event && ask(site, field, $event)"
            />
          </td>
        </tr>
        <tr>
          <td>Shared mailbox</td>
          <td v-for="site in setup.sites" :key="site.id" class="mono">{{ site.deskEmail }}</td>
        </tr>
        <tr>
          <td />
          <td v-for="site in setup.sites" :key="site.id">
            <NButton @click="begin(site)">Copy {{ site.code }} to others</NButton>{{ ' ' }}
            <NButton tag="a" :href="`/c/${site.code}`" target="_blank">See it</NButton>
          </td>
        </tr>
      </tbody>
    </table>
    <form v-if="copying" class="copy" @submit.prevent="copy">
      <p>
        <strong>Copying {{ copying.name }} would change:</strong>
      </p>
      <NCheckboxGroup v-model:value="chosen">
        <NCheckbox v-for="site in others" :key="site.id" :value="site.id"
          >{{ site.name }}:
          {{
            changesAt(site)
              .map((one) => `${COUNTER_FIELD_NAMES[one.field]} from ${ASKING_NAMES[one.from].toLowerCase()} to ${ASKING_NAMES[one.to].toLowerCase()}`)
              .join('; ') || 'nothing, it asks the same'
          }}</NCheckbox
        >
      </NCheckboxGroup>
      <p><NButton type="primary" attr-type="submit" :disabled="!chosen.length">Copy</NButton> <NButton @click="copying = null">Leave it</NButton></p>
    </form>
  </section>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.copy {
  display: grid;
  gap: 8px;
  padding: 12px;
  background: var(--shoal-faint);
  border-radius: 6px;
}
</style>
