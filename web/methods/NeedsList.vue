<script setup lang="ts">
import { computed } from 'vue'
import type { PlanNames } from '#contract/methods'
import { labourMinutes, PERMIT_NAMES } from '#core/methods'
import type { PlanLines } from '#core/methods'
import { RecordLink, spell, writtenAs } from '#web/kit'

/** What a job needs, read: labour, parts, tools, and what is dangerous about it. */
const props = defineProps<{ lines: PlanLines; names: PlanNames }>()
const empty = computed(() => !props.lines.labour.length && !props.lines.parts.length && !props.lines.tools.length && !props.lines.hazards.length)
const minutes = computed(() => labourMinutes(props.lines.labour))
</script>

<template>
  <p v-if="empty" class="soft">Nothing is said of what it needs.</p>
  <dl v-else class="needs">
    <template v-if="lines.labour.length">
      <dt>Labour</dt>
      <dd>
        <p v-for="line in lines.labour" :key="line.tradeId">
          {{ names.trades[line.tradeId] ?? 'A trade' }}<span class="mono much">{{ line.people > 1 ? `${line.people} × ` : '' }}{{ spell(line.minutes) }}</span>
          <span v-if="line.skills?.length" class="soft">with {{ line.skills.join(', ') }}</span>
        </p>
        <p v-if="lines.labour.length > 1 || lines.labour[0]!.people > 1" class="soft">
          In all <span class="mono">{{ spell(minutes) }}</span>
        </p>
      </dd>
    </template>
    <template v-if="lines.parts.length">
      <dt>Parts</dt>
      <dd>
        <p v-for="line in lines.parts" :key="line.partId">
          <span class="mono">{{ writtenAs('quantity', line.quantity) }} {{ names.parts[line.partId]?.unit }}</span>
          {{ ' ' }}<RecordLink :record="{ register: 'parts', id: line.partId }">{{ names.parts[line.partId]?.name ?? 'A part' }}</RecordLink>
          <span class="mono soft much">{{ names.parts[line.partId]?.code }}</span>
        </p>
      </dd>
    </template>
    <template v-if="lines.tools.length">
      <dt>Tools and equipment</dt>
      <dd>
        <p v-for="line in lines.tools" :key="line.text">
          <RecordLink v-if="line.equipmentId" :record="{ register: 'equipment', id: line.equipmentId }">{{
            names.equipment[line.equipmentId] ?? line.text
          }}</RecordLink>
          <template v-else>{{ line.text }}</template>
        </p>
      </dd>
    </template>
    <template v-if="lines.hazards.length">
      <dt>Hazards</dt>
      <dd>
        <p v-for="line in lines.hazards" :key="line.hazard">
          <strong>{{ line.hazard }}</strong>: {{ line.control
          }}<span v-if="line.permit" class="permit"> Permit: {{ PERMIT_NAMES[line.permit].toLowerCase() }}</span>
        </p>
      </dd>
    </template>
  </dl>
</template>

<style scoped>
.needs {
  display: grid;
  grid-template-columns: minmax(110px, 150px) 1fr;
  gap: 6px 16px;
  margin: 0;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
p {
  margin: 0;
}
.much {
  margin-left: 8px;
}
.permit {
  color: var(--buoy);
  white-space: nowrap;
}
@media (max-width: 600px) {
  .needs {
    grid-template-columns: 1fr;
    gap: 2px;
  }
  dd {
    margin-bottom: 8px;
  }
}
</style>
