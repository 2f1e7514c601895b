<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { onMounted, ref } from 'vue'
import { decideLeave } from '#contract/shifts'
import type { LeaveAsk } from '#contract/shifts'
import { call, dayOf, TextEntry } from '#web/kit'
import { useLineAct } from '#web/sheets'

/** Leave that is asked for, each with what stands against it, to be agreed to or refused. */
defineProps<{ rows: readonly LeaveAsk[] }>()
const emit = defineEmits<{ leave: []; now: [LeaveAsk[]] }>()
const panel = ref<HTMLElement | null>(null)
onMounted(() => panel.value?.focus({ preventScroll: true }))
const refusing = ref<number | null>(null)
const note = ref('')
const { act, at, busy } = useLineAct<{ rows: LeaveAsk[] }>((now) => emit('now', now.rows))
const span = ({ from, until }: LeaveAsk) => (from === until ? dayOf(from) : `${dayOf(from)} to ${dayOf(until)}`)
const agree = (ask: LeaveAsk) => act(() => call(decideLeave, { id: ask.id, version: ask.version, agree: true }), `${ask.name} is on leave then.`)
async function refuse(ask: LeaveAsk): Promise<void> {
  if (
    !(await act(() => call(decideLeave, { id: ask.id, version: ask.version, agree: false, note: note.value.trim() }), `The leave of ${ask.name} is refused.`))
  )
    return
  refusing.value = null
  note.value = ''
}
</script>

<template>
  <section ref="panel" class="panel" tabindex="-1" aria-label="Leave asked for" @keydown.esc.stop="emit('leave')">
    <header>
      <h2>Leave asked for</h2>
      <NButton size="small" aria-label="Close this" @click="emit('leave')">×</NButton>
    </header>
    <p v-if="!rows.length" class="soft">Nobody asks for leave.</p>
    <article v-for="ask in rows" :key="ask.id" :aria-label="`${ask.name}, ${span(ask)}`">
      <p>
        <strong>{{ ask.name }}</strong> <span class="soft">{{ ask.team }}</span><br />{{ span(ask) }}<template v-if="ask.reason">, {{ ask.reason }}</template>
      </p>
      <ul v-if="ask.planned || ask.alsoAway.length || ask.onCall" aria-label="Stands against it">
        <li v-if="ask.planned">
          Planned for {{ ask.planned === 1 ? 'one visit' : `${ask.planned} visits` }} then; they stay, and can be given to somebody else.
        </li>
        <li v-if="ask.alsoAway.length">Also away: {{ ask.alsoAway.join(', ') }}</li>
        <li v-if="ask.onCall">On call then.</li>
      </ul>
      <form v-if="refusing === ask.id" @submit.prevent="refuse(ask)">
        <TextEntry :id="`refuse-${ask.id}`" v-model="note" label="Why not" :max="300" :problem="at('note')" />
        <p class="acts">
          <NButton size="small" type="primary" attr-type="submit" :disabled="busy || !note.trim()">Refuse it</NButton>
          <NButton size="small" quaternary @click="refusing = null">Back</NButton>
        </p>
      </form>
      <p v-else class="acts">
        <NButton size="small" type="primary" :disabled="busy" @click="agree(ask)">Agree</NButton>
        <NButton size="small" :disabled="busy" @click="refusing = ask.id">Refuse</NButton>
      </p>
    </article>
  </section>
</template>

<style scoped src="../board/panel.css"></style>
<style scoped>
article {
  border-top: 1px solid var(--line);
  padding: 8px 0;
}
article p {
  margin: 0 0 6px;
}
ul {
  margin: 0 0 6px;
  padding-left: 18px;
  font-size: 13px;
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
