<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { dropSkill, saveSkill } from '#contract/people'
import type { CrewSheet } from '#contract/people'
import { call, dayOf, MomentEntry, SuggestEntry, TextEntry, useFormDraft, useVocabulary } from '#web/kit'
import { FoldForm, useLineAct } from '#web/sheets'

/** What a technician can do, with the paper that says so and its end. */
const props = defineProps<{ crew: CrewSheet }>()
const emit = defineEmits<{ now: [CrewSheet] }>()
const { act, at, busy } = useLineAct((crew: CrewSheet) => emit('now', crew))
const words = useVocabulary()
void words.ensure()
const fold = ref<InstanceType<typeof FoldForm> | null>(null)
const { form, kept, drop } = useFormDraft(`skill-${props.crew.id}`, { name: '', certificate: '', validUntil: '' })
async function add(): Promise<void> {
  const { name, certificate, validUntil } = form
  const skill = { id: props.crew.id, name: name.trim(), certificate: certificate.trim(), validUntil }
  if (!(await act(() => call(saveSkill, skill), `${skill.name} is noted.`))) return
  drop()
  fold.value?.close()
}
</script>

<template>
  <h3>Skills and certificates</h3>
  <table v-if="crew.skills.length" class="plain-table">
    <thead>
      <tr>
        <th>Skill</th>
        <th>Certificate</th>
        <th>Good until</th>
        <th><span class="hidden">Away</span></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="skill in crew.skills" :key="skill.id">
        <td>{{ skill.name }}</td>
        <td class="mono">{{ skill.certificate ?? '–' }}</td>
        <td :class="{ over: skill.over }">{{ skill.validUntil ? dayOf(skill.validUntil) : '–' }}{{ skill.over ? ', ended' : '' }}</td>
        <td class="right">
          <NButton
            v-if="!crew.whyNot"
            size="tiny"
            :aria-label="`Take ${skill.name} away`"
            @click="act(() => call(dropSkill, { id: crew.id, itemId: skill.id }), `${skill.name} is taken away.`)"
            >×</NButton
          >
        </td>
      </tr>
    </tbody>
  </table>
  <p v-else class="soft">No skill is noted.</p>
  <FoldForm v-if="!crew.whyNot" ref="fold" label="Note a skill" :begun="kept" @send="add">
    <SuggestEntry id="skill-name" v-model="form.name" label="Skill" :offers="words.lists?.skills" :max="80" :problem="at('name')" />
    <TextEntry id="skill-certificate" v-model="form.certificate" label="Certificate" small mono :max="60" :problem="at('certificate')" />
    <MomentEntry id="skill-until" v-model="form.validUntil" day label="Good until" :problem="at('validUntil')" />
    <NButton size="small" attr-type="submit" :disabled="busy || !form.name.trim()">Note the skill</NButton>
  </FoldForm>
</template>

<style scoped src="../../sheets/lines.css"></style>
