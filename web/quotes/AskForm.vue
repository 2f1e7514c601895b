<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NCheckbox, NCheckboxGroup } from 'naive-ui/es/checkbox'
import { computed, ref } from 'vue'
import { listCandidates } from '#contract/dispatch'
import { askQuotes } from '#contract/quotes'
import type { OrderQuotes } from '#contract/quotes'
import { MOST_ASKED } from '#core/quotes'
import { papersMissing } from '#core/vendors'
import { vendorSays } from '#web/dispatch'
import { call, freshKey, fromLocalField, LoadedPart, MomentEntry, TextEntry, toLocalField, useFirstField, useRead } from '#web/kit'
import { useLineAct } from '#web/sheets'

/** Whom to ask for a price, what for, and until when. */
const props = defineProps<{ orderId: number; proposed: OrderQuotes['proposed'] }>()
const emit = defineEmits<{ leave: []; done: [OrderQuotes] }>()
const wanted = ref(props.proposed.wanted)
const due = ref(toLocalField(new Date(props.proposed.dueAt)))
const chosen = ref<number[]>([])
const key = freshKey()
const form = ref<HTMLElement | null>(null)
useFirstField(form)
const { act, at, busy, first } = useLineAct<OrderQuotes>((now) => emit('done', now))
const candidates = useRead(
  listCandidates,
  () => ({ orderId: props.orderId, start: props.proposed.dueAt, end: new Date(new Date(props.proposed.dueAt).getTime() + 3_600_000).toISOString() }),
  {
    holds: true,
  },
)
const lists = computed(() => {
  const all = candidates.value.value?.vendors ?? []
  return [
    { name: null, rows: all.filter(({ hasTrade }) => hasTrade) },
    { name: 'Vendors for other trades', rows: all.filter(({ hasTrade }) => !hasTrade) },
  ].filter(({ rows }) => rows.length)
})
const whole = computed(() => chosen.value.length > 0 && !!wanted.value.trim() && !!due.value)
const send = () =>
  whole.value &&
  act(
    () =>
      call(
        askQuotes,
        { orderId: props.orderId, vendorIds: chosen.value, wanted: wanted.value.trim(), dueAt: fromLocalField(due.value).toISOString() },
        { key },
      ),
    chosen.value.length === 1 ? 'One vendor is asked for a price.' : `${chosen.value.length} vendors are asked for a price.`,
  )
</script>

<template>
  <form ref="form" class="form" aria-label="Ask for prices" @submit.prevent="send" @keydown.ctrl.enter.prevent="send" @keydown.esc.stop="emit('leave')">
    <TextEntry id="quote-wanted" v-model="wanted" label="What is wanted, as they will read it" :max="4000" long :problem="at('wanted')" required />
    <MomentEntry id="quote-due" v-model="due" label="Answer by" :problem="at('dueAt')" required />
    <LoadedPart :part="candidates">
      <NCheckboxGroup v-model:value="chosen" :max="MOST_ASKED" aria-label="Whom to ask">
        <component :is="name ? 'details' : 'div'" v-for="{ name, rows } in lists" :key="name ?? ''">
          <summary v-if="name">{{ name }}</summary>
          <div v-for="one in rows" :key="one.id" class="who">
            <NCheckbox :value="one.id"
              >{{ one.name }} <span class="soft">{{ one.service }}</span></NCheckbox
            >
            <span class="says soft" :class="{ wrong: papersMissing(one.papers).length }">{{ vendorSays(one) }}</span>
          </div>
        </component>
      </NCheckboxGroup>
    </LoadedPart>
    <p class="soft">They read this and where it is, nothing else of the order. They are reminded half-way; you hear of it when nobody answers.</p>
    <p v-if="first" class="problem" role="alert">{{ first }}</p>
    <div class="row">
      <NButton type="primary" attr-type="submit" :disabled="busy || !whole">Send the question</NButton>
      <NButton @click="emit('leave')">Leave it</NButton>
    </div>
  </form>
</template>

<style scoped src="../stock/form.css"></style>
<style scoped>
.who {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  align-items: baseline;
  padding: 3px 0;
}
.says {
  font-size: 12px;
}
.wrong {
  color: var(--buoy);
}
.form p {
  margin: 0;
}
</style>
