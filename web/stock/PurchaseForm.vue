<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import { askPurchase, editPurchase } from '#contract/stock'
import type { LineEntry, Purchase } from '#contract/stock'
import { call, DecimalField, freshKey, PickField, TextEntry, useFirstField, useVocabulary } from '#web/kit'
import { useLineAct } from '#web/sheets'
import { partChoices, storeChoices } from './finders'

/** What is asked for: at which vendor, delivered where, and line by line; a new one, or one that is not ordered yet. */
const props = defineProps<{ purchase?: Purchase }>()
const emit = defineEmits<{ leave: []; made: [id: number] }>()
const words = useVocabulary()
void words.ensure()
interface Line {
  key: number
  partId: number | null
  called: string
  quantity: string | null
  price: number | null
  orderId: number | null
}
let keys = 0
const blank = (): Line => ({ key: ++keys, partId: null, called: '', quantity: null, price: null, orderId: null })
const it = props.purchase
const vendor = ref(it?.vendorId ?? null)
const store = ref(it?.storeId ?? null)
const note = ref(it?.note ?? '')
const lines = ref<Line[]>(
  it
    ? it.lines.map((line) => ({
        key: ++keys,
        partId: line.partId,
        called: `${line.code} ${line.name}, ${line.unit}`,
        quantity: line.quantity,
        price: line.priceMinor,
        orderId: line.order?.id ?? null,
      }))
    : [blank()],
)
type Field = InstanceType<typeof DecimalField> | null
const fields = ref<Field[]>([])
const whole = computed(() => lines.value.filter((line) => line.partId !== null))
const ready = computed(() => store.value !== null && whole.value.length > 0 && whole.value.every((line) => line.quantity !== null))
const key = ref(freshKey())
watch([vendor, store, note, lines], () => (key.value = freshKey()), { deep: true })
const { act, at, busy } = useLineAct<Purchase>((made) => emit('made', made.id))
const form = ref<HTMLElement | null>(null)
useFirstField(form)

async function send(): Promise<void> {
  // What was typed last is read before it is sent.
  if (fields.value.map((field) => field?.leave() ?? true).includes(false) || !ready.value) return
  const entry = {
    vendorId: vendor.value,
    storeId: store.value!,
    note: note.value.trim() || null,
    lines: whole.value.map(({ partId, quantity, price, orderId }): LineEntry => ({
      partId: partId!,
      quantity: quantity!,
      ...(price === null ? {} : { priceMinor: price }),
      orderId,
    })),
  }
  await act(
    () => (it ? call(editPurchase, { id: it.id, version: it.version, ...entry }) : call(askPurchase, entry, { key: key.value })),
    it ? 'Kept.' : 'Asked for. Nothing is ordered by that.',
  )
}
</script>

<template>
  <form ref="form" class="form" aria-label="Purchase" @submit.prevent="send" @keydown.ctrl.enter.prevent="send" @keydown.esc.stop="emit('leave')">
    <div class="row">
      <PickField
        id="purchase-vendor"
        label="Vendor"
        :value="vendor"
        :choices="words.choices((all) => all.vendors)"
        clearable
        :problem="at('vendorId')"
        @pick="vendor = $event === null ? null : Number($event)"
      />
      <PickField
        id="purchase-store"
        label="Delivered to the store"
        :value="store"
        :current="it ? { value: it.storeId, label: it.store } : null"
        :find="storeChoices"
        :problem="at('storeId')"
        @pick="store = $event === null ? null : Number($event)"
      />
      <TextEntry id="purchase-note" v-model="note" label="Note for the vendor" :max="1000" />
    </div>
    <div v-for="(line, index) in lines" :key="line.key" class="row">
      <PickField
        :id="`purchase-part-${line.key}`"
        :label="index ? `Part, line ${index + 1}` : 'Part'"
        :value="line.partId"
        :current="line.called ? { value: line.partId!, label: line.called } : null"
        :find="partChoices"
        @pick="(value, label) => ((line.partId = value === null ? null : Number(value)), (line.called = label))"
      />
      <DecimalField
        :id="`purchase-quantity-${line.key}`"
        :ref="(one) => (fields[index * 2] = one as Field)"
        label="How many"
        kind="quantity"
        :required="line.partId !== null"
        :value="line.quantity"
        @save="line.quantity = $event === null ? null : String($event)"
      />
      <DecimalField
        :id="`purchase-price-${line.key}`"
        :ref="(one) => (fields[index * 2 + 1] = one as Field)"
        label="Price of one, if not the last"
        kind="money"
        :value="line.price"
        @save="line.price = $event === null ? null : Number($event)"
      />
      <NButton v-if="lines.length > 1" class="out" quaternary :aria-label="`Take out line ${index + 1}`" @click="lines.splice(index, 1)">Take out</NButton>
    </div>
    <p v-if="at('lines')" class="problem" role="alert">{{ at('lines') }}</p>
    <div class="row">
      <NButton type="primary" attr-type="submit" :disabled="busy || !ready">{{ it ? 'Keep' : 'Ask for it' }}</NButton>
      <NButton @click="lines.push(blank())">Another part</NButton>
      <NButton @click="emit('leave')">Leave it</NButton>
    </div>
  </form>
</template>

<style scoped src="./form.css"></style>
<style scoped>
.out {
  align-self: end;
}
</style>
