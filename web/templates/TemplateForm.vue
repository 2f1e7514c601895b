<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { addTemplate, editTemplate } from '#contract/templates'
import type { Template } from '#contract/templates'
import { ORDER_KIND_NAMES, ORDER_KINDS } from '#core/orders'
import { may } from '#core/people'
import { PRIORITIES, PRIORITY_NAMES } from '#core/requests'
import { MOST_DUE_DAYS, MOST_SUMMARY, PAYER_RULE_NAMES, PAYER_RULES } from '#core/templates'
import type { TemplateFields } from '#core/templates'
import {
  call,
  ChoiceEntry,
  DecimalField,
  freshKey,
  ListEntry,
  named,
  NumberEntry,
  PickField,
  rowsNamed,
  TextEntry,
  useFirstField,
  useSession,
  useVocabulary,
} from '#web/kit'
import { useLineAct } from '#web/sheets'
import { methodChoices } from './finders'

/** What many orders have in common. */
const props = defineProps<{ template?: Template }>()
const emit = defineEmits<{ leave: []; kept: [] }>()
const session = useSession()
const words = useVocabulary()
void words.ensure()
const blank = (): TemplateFields => ({
  siteId: session.self!.site.id,
  name: '',
  kind: 'preventive',
  summary: '',
  description: '',
  priority: 'routine',
  categoryId: null,
  tradeId: null,
  teamId: null,
  leadId: null,
  supervisorId: null,
  methodId: null,
  payerRule: 'place',
  payerId: null,
  estimateMinor: null,
  dueDays: null,
})
function fieldsOf({ id: _, version: __, retired: ___, names: ____, ...fields }: Template): TemplateFields {
  return fields
}
const it = ref<TemplateFields>(props.template ? fieldsOf(props.template) : blank())
const estimate = ref<InstanceType<typeof DecimalField> | null>(null)
const key = freshKey()
const { act, at, busy } = useLineAct<Template>(() => emit('kept'))
const form = ref<HTMLElement | null>(null)
useFirstField(form)
const pick = (field: 'categoryId' | 'tradeId' | 'teamId' | 'leadId' | 'supervisorId' | 'methodId' | 'payerId') => (value: number | string | null) =>
  void (it.value[field] = value === null ? null : Number(value))
const ready = computed(() => !!it.value.name.trim() && !!it.value.summary.trim() && !!it.value.description.trim())
async function keep(retired?: boolean): Promise<void> {
  if (estimate.value?.leave() === false) return
  const { template } = props
  const sent = { ...it.value, name: it.value.name.trim(), summary: it.value.summary.trim() }
  if (!template) await act(() => call(addTemplate, sent, { key }), 'Kept.')
  else
    await act(
      () => call(editTemplate, { ...sent, id: template.id, version: template.version, ...(retired === undefined ? {} : { retired }) }),
      retired ? 'Put away.' : 'Kept.',
    )
}
const people = (pickFrom: Parameters<typeof words.choices>[0]) => words.choices(pickFrom)
</script>

<template>
  <form ref="form" class="form" aria-label="Template" @submit.prevent="keep()" @keydown.ctrl.enter.prevent="keep()" @keydown.esc.stop="emit('leave')">
    <div class="row">
      <TextEntry id="template-name" v-model="it.name" class="wide" label="Name" :max="120" :problem="at('name')" />
      <TextEntry
        id="template-summary"
        v-model="it.summary"
        class="wide"
        label="In one line, {code} and {name} stand for the place or asset"
        :max="MOST_SUMMARY"
        :problem="at('summary')"
      />
    </div>
    <TextEntry id="template-description" v-model="it.description" long label="What is to be done" :max="4000" :problem="at('description')" />
    <div class="row">
      <ListEntry
        v-if="!template && (words.lists?.sites.length ?? 0) > 1"
        id="template-site"
        v-model="it.siteId"
        label="Site"
        :options="rowsNamed(words.lists?.sites)"
        :problem="at('siteId')"
      />
      <ListEntry id="template-kind" v-model="it.kind" label="Kind" :options="named(ORDER_KINDS, ORDER_KIND_NAMES)" />
      <ListEntry id="template-priority" v-model="it.priority" label="Priority" :options="named(PRIORITIES, PRIORITY_NAMES)" />
      <NumberEntry
        id="template-due"
        v-model="it.dueDays"
        label="Done within, if not as promised"
        unit="days"
        :least="1"
        :most="MOST_DUE_DAYS"
        :problem="at('dueDays')"
      />
      <DecimalField
        id="template-estimate"
        ref="estimate"
        label="Estimate for each"
        kind="money"
        :value="it.estimateMinor"
        :problem="at('estimateMinor')"
        @save="it.estimateMinor = $event === null ? null : Number($event)"
      />
    </div>
    <div class="row">
      <PickField
        id="template-category"
        label="Category"
        :value="it.categoryId"
        :choices="people((all) => all.categories)"
        clearable
        :problem="at('categoryId')"
        @pick="pick('categoryId')($event)"
      />
      <PickField
        id="template-trade"
        label="Trade"
        :value="it.tradeId"
        :choices="people((all) => all.trades)"
        clearable
        :problem="at('tradeId')"
        @pick="pick('tradeId')($event)"
      />
      <PickField
        id="template-team"
        label="Team"
        :value="it.teamId"
        :choices="people((all) => all.teams)"
        clearable
        :problem="at('teamId')"
        @pick="pick('teamId')($event)"
      />
      <PickField
        id="template-supervisor"
        label="Supervisor"
        :value="it.supervisorId"
        :choices="people((all) => all.accounts.filter(({ roles }) => may(roles, 'orders.approve')))"
        clearable
        :problem="at('supervisorId')"
        @pick="pick('supervisorId')($event)"
      />
      <PickField
        id="template-method"
        label="Done by the method"
        :value="it.methodId"
        :find="methodChoices"
        :current="template?.methodId && template.names.method ? { value: template.methodId, label: template.names.method } : null"
        clearable
        :problem="at('methodId')"
        @pick="pick('methodId')($event)"
      />
    </div>
    <div class="row">
      <ChoiceEntry id="template-payer-rule" v-model="it.payerRule" label="Who pays" :options="named(PAYER_RULES, PAYER_RULE_NAMES)" />
      <PickField
        v-if="it.payerRule === 'fixed'"
        id="template-payer"
        label="Payer"
        :value="it.payerId"
        :choices="people((all) => all.payers)"
        :problem="at('payerId')"
        @pick="pick('payerId')($event)"
      />
    </div>
    <div class="row">
      <NButton type="primary" attr-type="submit" :disabled="busy || !ready">Keep</NButton>
      <NButton @click="emit('leave')">Leave it</NButton>
      <NButton v-if="template" quaternary :disabled="busy" @click="keep(!template.retired)">{{ template.retired ? 'Take out again' : 'Put away' }}</NButton>
    </div>
  </form>
</template>

<style scoped src="../stock/form.css"></style>
<style scoped>
.wide {
  flex: 1 1 300px;
}
</style>
