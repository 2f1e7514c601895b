<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { rearrange } from '#contract/board'
import { keepTime } from '#contract/dispatch'
import { call, CallProblem, freshKey, spanTime, TextEntry } from '#web/kit'

/** The time a vendor proposed instead, to be taken or not. */
const props = defineProps<{
  siteId: number
  visit: { id: number; version: number }
  who: string
  proposed: { start: string; end: string }
  note: string | null
}>()
const emit = defineEmits<{ done: [] }>()
const doing = ref<'take' | 'keep' | null>(null)
const against = ref<string[]>([])
const said = ref('')
const problem = ref('')
const busy = ref(false)
let key = freshKey()

async function act(run: () => Promise<unknown>): Promise<void> {
  busy.value = true
  problem.value = ''
  try {
    await run()
    emit('done')
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    // What is asked for a reason is no refusal: it is said, and the reason asked for.
    const asked = error.reasons.filter(({ field }) => field === 'despite')
    if (asked.length && asked.length === error.reasons.length) {
      against.value = asked.map(({ sentence }) => sentence)
      doing.value = 'take'
    } else problem.value = error.reasons[0]?.sentence ?? error.message
    key = freshKey()
  } finally {
    busy.value = false
  }
}
const take = () =>
  act(() =>
    call(
      rearrange,
      {
        siteId: props.siteId,
        changes: [{ visitId: props.visit.id, version: props.visit.version, ...props.proposed }],
        ...(said.value.trim() ? { despite: said.value.trim() } : {}),
      },
      { key },
    ),
  )
const keep = () => act(() => call(keepTime, { visitId: props.visit.id, version: props.visit.version, note: said.value.trim() }, { key }))
</script>

<template>
  <div class="proposal" role="group" :aria-label="`${who} proposes another time`">
    <p>
      {{ who }} proposes <strong class="mono">{{ spanTime(proposed.start, proposed.end) }}</strong><template v-if="note">: “{{ note }}”</template>
    </p>
    <ul v-if="against.length" aria-label="Speaks against it">
      <li v-for="sentence in against" :key="sentence">{{ sentence }}</li>
    </ul>
    <TextEntry
      v-if="doing"
      id="proposal-said"
      v-model="said"
      :label="doing === 'take' ? 'Why it is done all the same' : 'A line for them, if you like'"
      :max="300"
    />
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <p class="acts">
      <NButton v-if="doing !== 'keep'" type="primary" size="small" :disabled="busy || (doing === 'take' && !said.trim())" @click="take"
        >Take their time</NButton
      >
      <NButton v-if="doing === 'keep'" type="primary" size="small" :disabled="busy" @click="keep">Ask them again for ours</NButton>
      <NButton v-else size="small" :disabled="busy" @click="((doing = 'keep'), (against = []))">Keep ours</NButton>
      <NButton v-if="doing" size="small" quaternary @click="((doing = null), (against = []))">Back</NButton>
    </p>
  </div>
</template>

<style scoped>
.proposal {
  border-left: 4px solid var(--buoy);
  padding: 2px 0 2px 12px;
  margin: 4px 0;
}
.proposal p {
  margin: 0 0 6px;
}
.acts {
  display: flex;
  gap: 8px;
}
ul {
  margin: 0 0 6px;
  padding-left: 18px;
}
</style>
