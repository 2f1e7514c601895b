<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { onMounted, ref } from 'vue'
import type { BillFile } from '#contract/vendors'
import { CallProblem, DecimalField, FileEntry, TextEntry } from '#web/kit'

/** The vendor's bill, line by line, as it will be paid; an electronic invoice fills it in, a PDF goes along with it. */
const props = defineProps<{
  currency: string
  busy: boolean
  problem: CallProblem | null
  /** What it starts with: the parts they brought. */
  brought?: readonly { name: string; quantity: string }[]
  /** Sends the file ahead, and says what was read of it. */
  readFile: (file: File) => Promise<BillFile>
}>()
interface Sent {
  number: string
  taxBp: number
  lines: { description: string; quantity: string; unitPriceMinor: number }[]
  fileClaim?: string
}
const emit = defineEmits<{ send: [bill: Sent]; leave: [] }>()
/** It opens where it is seen, however much lies above it. */
const form = ref<HTMLFormElement | null>(null)
onMounted(() => form.value?.scrollIntoView?.({ block: 'start' }))
const number = ref('')
const tax = ref<number | null>(1_350)
interface Line {
  description: string
  quantity: string | null
  price: number | null
}
const started = (props.brought ?? []).map(({ name, quantity }): Line => ({ description: name, quantity: String(Number(quantity)), price: null }))
const lines = ref<Line[]>(started.length ? started : [{ description: '', quantity: '1', price: null }])
/** Lines read from a file are others: their fields are made anew. */
const round = ref(0)
const file = ref<BillFile | null>(null)
const reading = ref(false)
const wrongFile = ref('')
async function choose([chosen]: File[]): Promise<void> {
  if (!chosen) return
  reading.value = true
  wrongFile.value = ''
  try {
    file.value = await props.readFile(chosen)
    const { read } = file.value
    if (!read) return
    number.value = read.number
    tax.value = read.taxBp
    lines.value = read.lines.map(({ description, quantity, unitPriceMinor }) => ({ description, quantity, price: unitPriceMinor }))
    round.value++
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    wrongFile.value = error.reasons[0]?.sentence ?? error.message
  } finally {
    reading.value = false
  }
}

/** The fields that hold numbers, by what they are of. */
const fields: Record<string, InstanceType<typeof DecimalField> | null> = {}
const field = (name: string) => (one: unknown) => (fields[name] = one as InstanceType<typeof DecimalField> | null)
const drop = (index: number) => {
  lines.value = lines.value.filter((_, at) => at !== index)
  round.value++
}

/** Every number is read before anything is sent: none is taken for another. */
function send(): void {
  if (
    Object.values(fields)
      .map((one) => one?.leave())
      .includes(false)
  )
    return
  emit('send', {
    number: number.value,
    taxBp: tax.value ?? 0,
    lines: lines.value.map((line) => ({ description: line.description, quantity: line.quantity ?? '', unitPriceMinor: line.price ?? 0 })),
    ...(file.value ? { fileClaim: file.value.claim } : {}),
  })
}
</script>

<template>
  <form ref="form" class="card" aria-label="Enter the bill" @submit.prevent="send">
    <h2>Your bill</h2>
    <FileEntry
      id="bill-file"
      label="As a file, if you have one"
      :press="file ? 'Another file' : 'Electronic invoice or PDF'"
      accept=".xml,.pdf,application/xml,text/xml,application/pdf"
      :disabled="busy || reading"
      @choose="choose"
    />
    <p v-if="reading" role="status">The file is read.</p>
    <p v-else-if="file" role="status">
      {{ file.name }}: {{ file.read ? 'read. Look it through, then send it.' : 'goes along. Write its number and its lines here.' }}
    </p>
    <p v-if="wrongFile" class="problem" role="alert">{{ wrongFile }}</p>
    <TextEntry id="bill-number" v-model="number" label="Bill number" :max="40" required :problem="problem?.at('number')" />
    <fieldset v-for="(line, index) in lines" :key="`${round}-${index}`">
      <legend class="label">Line {{ index + 1 }}</legend>
      <TextEntry :id="`bill-what-${index}`" v-model="line.description" label="What" :max="200" class="wide" required />
      <DecimalField
        :id="`bill-quantity-${index}`"
        :ref="field(`quantity-${index}`)"
        label="Quantity"
        kind="quantity"
        required
        :value="line.quantity"
        @save="line.quantity = $event as string"
      />
      <DecimalField
        :id="`bill-price-${index}`"
        :ref="field(`price-${index}`)"
        :label="`Price each, ${currency}`"
        kind="money"
        required
        :value="line.price"
        @save="line.price = $event as number"
      />
      <NButton v-if="lines.length > 1" size="small" class="wide" :aria-label="`Take out line ${index + 1}`" @click="drop(index)">Take out</NButton>
    </fieldset>
    <NButton @click="lines.push({ description: '', quantity: '1', price: null })">Another line</NButton>
    <DecimalField
      id="bill-tax"
      :key="`tax-${round}`"
      :ref="field('tax')"
      label="Tax in %"
      kind="percent"
      required
      :value="tax"
      @save="tax = $event as number"
    />
    <p v-if="problem && !problem.at('number')" class="problem" role="alert">{{ problem.reasons[0]?.sentence ?? problem.message }}</p>
    <NButton type="primary" attr-type="submit" :disabled="busy">Send the bill</NButton>
    <NButton @click="emit('leave')">Not now</NButton>
  </form>
</template>

<style scoped>
fieldset {
  border: 1px solid var(--line);
  border-radius: 6px;
  margin: 0;
  padding: 8px 12px 12px;
  display: grid;
  /* With larger letters one below the other: labels of two lengths would set the fields at two heights. */
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 9rem), 1fr));
  gap: 8px;
  min-width: 0;
}
.wide {
  grid-column: 1 / -1;
  justify-self: stretch;
}
p {
  margin: 0;
}
</style>
