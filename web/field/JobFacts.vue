<script setup lang="ts">
import type { AgreedWindow } from '#contract/orders'
import type { ToBring } from '#core/jobsheets'
import { shortTime, spanTime } from '#web/kit'

/** What somebody needs to go: where, who, how to get in. No money. */
defineProps<{
  job: {
    description: string
    plannedStart: string
    plannedEnd: string
    placeName?: string | null
    place?: string | null
    placeCode?: string | null
    placeWithin: string | null
    placeAccess: string | null
    access: string | null
    contactName: string | null
    contactPhone: string | null
    window: AgreedWindow | null
    noteForWorker: string | null
    asset: { tag: string; name: string } | null
    /** What has to be brought, counted; a vendor brings their own. */
    toBring?: ToBring[]
  }
}>()
</script>

<template>
  <section class="card" aria-label="The job">
    <p class="text">{{ job.description }}</p>
    <dl>
      <dt>When</dt>
      <dd class="mono">{{ shortTime(job.plannedStart) }} to {{ shortTime(job.plannedEnd) }}</dd>
      <template v-if="job.window"
        ><dt>Agreed</dt>
        <dd>
          <span class="mono">{{ spanTime(job.window.from, job.window.until) }}</span>{{ job.window.with ? `, ${job.window.with}` : '' }}
        </dd></template
      >
      <template v-if="job.placeName ?? job.place"
        ><dt>Where</dt>
        <dd>
          <span v-if="job.placeCode" class="mono">{{ job.placeCode }} </span>{{ job.placeName ?? job.place
          }}<span class="label">{{ job.placeWithin ? `, ${job.placeWithin}` : '' }}</span>
        </dd></template
      >
      <template v-if="job.asset"
        ><dt>Asset</dt>
        <dd>
          <span class="mono">{{ job.asset.tag }}</span> {{ job.asset.name }}
        </dd></template
      >
      <template v-if="job.toBring?.length"
        ><dt>To bring</dt>
        <dd>
          <span v-for="one in job.toBring" :key="one.text" class="bring">{{ one.many > 1 ? `${one.many} × ` : '' }}{{ one.text }}</span>
        </dd></template
      >
      <template v-if="job.placeAccess || job.access"
        ><dt>Getting in</dt>
        <dd>{{ [job.placeAccess, job.access].filter(Boolean).join(' ') }}</dd></template
      >
      <template v-if="job.contactName || job.contactPhone"
        ><dt>Contact</dt>
        <dd>
          {{ job.contactName }} <a v-if="job.contactPhone" :href="`tel:${job.contactPhone.replace(/ /g, '')}`">{{ job.contactPhone }}</a>
        </dd></template
      >
      <template v-if="job.noteForWorker"
        ><dt>Note</dt>
        <dd>{{ job.noteForWorker }}</dd></template
      >
    </dl>
  </section>
</template>

<style scoped>
.bring {
  display: block;
}
dl {
  margin: 0;
  display: grid;
  grid-template-columns: 84px minmax(0, 1fr);
  gap: 6px 10px;
}
dd .mono {
  margin-right: 6px;
}
dt {
  color: var(--ink-soft);
  font-size: 14px;
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
</style>
