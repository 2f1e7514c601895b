<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, nextTick, ref } from 'vue'
import { joinFindings, makeFindingOrders, setFindingsAside, takeUpFinding } from '#contract/findings'
import { discardOrder, readOrder } from '#contract/orders'
import { call, CallProblem, TextEntry, useUndo } from '#web/kit'

/** What is made of the findings that are chosen: an order, an order each, part of another, or nothing. */
const props = defineProps<{ chosen: readonly number[] }>()
const emit = defineEmits<{ done: [] }>()
const said = useUndo()
const busy = ref(false)
const problem = ref<CallProblem | null>(null)
const open = ref<'join' | 'aside' | null>(null)
const order = ref('')
const reason = ref('')
const many = computed(() => props.chosen.length)

async function act(run: () => Promise<{ says: string; back?: () => Promise<unknown> }>): Promise<void> {
  if (busy.value) return
  busy.value = true
  problem.value = null
  try {
    const { says, back } = await run()
    said.say(says, back)
    open.value = null
    order.value = reason.value = ''
    emit('done')
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    problem.value = error
  } finally {
    busy.value = false
  }
}
/** Drafts nobody has touched are discarded, and what they answered waits again. */
async function discard(id: number): Promise<void> {
  const { version } = await call(readOrder, { id })
  await call(discardOrder, { id, version })
}
const draft = (groups: number[][]) =>
  act(async () => {
    const { orders } = await call(makeFindingOrders, { groups })
    const back = async () => {
      for (const { id } of orders) await discard(id)
      emit('done')
    }
    const numbers = orders.map(({ number }) => number)
    return { says: `${numbers.slice(0, 3).join(', ')}${numbers.length > 3 ? ` and ${numbers.length - 3} more` : ''}: drafted, in Planning.`, back }
  })
const takeAllUp = async (ids: readonly number[]) => {
  for (const id of ids) await call(takeUpFinding, { id })
  emit('done')
}
const join = () =>
  act(async () => {
    const ids = [...props.chosen]
    const { number } = await call(joinFindings, { ids, order: order.value.trim() })
    return { says: `${number} is to put ${ids.length === 1 ? 'it' : 'them'} right, too.` }
  })
const aside = () =>
  act(async () => {
    const ids = [...props.chosen]
    await call(setFindingsAside, { ids, reason: reason.value.trim() })
    return { says: `${ids.length === 1 ? 'The finding is' : `${ids.length} findings are`} set aside.`, back: () => takeAllUp(ids) }
  })
async function ask(what: 'join' | 'aside'): Promise<void> {
  open.value = what
  problem.value = null
  await nextTick()
  document.getElementById(`findings-${what}`)?.focus()
}
</script>

<template>
  <div class="decide">
    <div class="acts" role="group" aria-label="What is made of them">
      <NButton type="primary" :disabled="busy || !many" @click="draft([[...chosen]])">{{
        many > 1 ? `One order for ${many} findings` : 'Draft an order'
      }}</NButton>
      <NButton v-if="many > 1" :disabled="busy" @click="draft(chosen.map((id) => [id]))">An order each</NButton>
      <NButton :disabled="busy || !many" :aria-expanded="open === 'join'" @click="ask('join')">Add to an order</NButton>
      <NButton :disabled="busy || !many" :aria-expanded="open === 'aside'" @click="ask('aside')">Set aside</NButton>
      <span v-if="!many" class="soft">Mark what you decide about.</span>
    </div>
    <form v-if="open === 'join' && many" class="ask" aria-label="Add to an order" @submit.prevent="join" @keydown.esc.stop="open = null">
      <TextEntry id="findings-join" v-model="order" mono label="Number of the order" :max="20" :problem="problem?.at('order')" />
      <NButton type="primary" attr-type="submit" :disabled="busy || !order.trim()">Add {{ many > 1 ? 'them' : 'it' }}</NButton>
      <NButton @click="open = null">Leave it</NButton>
    </form>
    <form v-if="open === 'aside' && many" class="ask" aria-label="Set aside" @submit.prevent="aside" @keydown.esc.stop="open = null">
      <TextEntry id="findings-aside" v-model="reason" class="why" label="Why nothing is to be done" :max="300" :problem="problem?.at('reason')" />
      <NButton type="primary" attr-type="submit" :disabled="busy || !reason.trim()">Set aside</NButton>
      <NButton @click="open = null">Leave it</NButton>
    </form>
    <p v-if="problem && !problem.at('order') && !problem.at('reason')" class="problem" role="alert">
      Nothing was changed. {{ problem.reasons[0]?.sentence ?? problem.message }}
    </p>
  </div>
</template>

<style scoped>
/* In sight however many there are. */
.decide {
  position: sticky;
  bottom: 0;
  z-index: 1;
  display: grid;
  gap: 8px;
  padding: 8px 0;
  background: var(--sheet);
}
.acts,
.ask {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.ask {
  align-items: end;
}
.why {
  flex: 1 1 260px;
}
p {
  margin: 0;
}
</style>
