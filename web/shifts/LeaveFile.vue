<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { takeLeaveFile } from '#contract/shifts'
import type { LeaveFile } from '#contract/shifts'
import { call, CallProblem, FileEntry, spanTime } from '#web/kit'

/** Leave read from a calendar file: looked at first, then taken. */
const props = defineProps<{ personId: number }>()
const emit = defineEmits<{ taken: [] }>()
const file = ref<File | null>(null)
const found = ref<LeaveFile | null>(null)
const problem = ref('')
const busy = ref(false)
async function send(take: boolean): Promise<void> {
  if (!file.value) return
  busy.value = true
  problem.value = ''
  try {
    found.value = await call(takeLeaveFile, { id: props.personId, name: file.value.name, take }, { file: file.value })
    if (take) emit('taken')
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    problem.value = error.reasons[0]?.sentence ?? error.message
    found.value = null
  } finally {
    busy.value = false
  }
}
function choose([chosen]: File[]): void {
  file.value = chosen ?? null
  void send(false)
}
const lists = computed(() =>
  found.value
    ? [
        { name: 'New', rows: found.value.added },
        { name: 'Changed', rows: found.value.changed },
        { name: 'Not in it any more', rows: found.value.gone },
      ].filter(({ rows }) => rows.length)
    : [],
)
const span = ({ from, until }: { from: string; until: string }) => spanTime(from, until)
</script>

<template>
  <FileEntry id="leave-file" label="Leave from a calendar file" press="Choose a file (.ics)" accept=".ics,text/calendar" :disabled="busy" @choose="choose" />
  <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  <div v-if="found" role="status">
    <p v-if="found.taken">The leave of {{ file?.name }} is noted.</p>
    <template v-else>
      <template v-for="{ name, rows } in lists" :key="name">
        <h4>{{ name }}</h4>
        <ul>
          <li v-for="(one, index) in rows" :key="index">
            {{ span(one) }} <span class="soft">{{ one.says }}</span>
          </li>
        </ul>
      </template>
      <template v-if="found.bad.length">
        <h4>Not taken</h4>
        <ul>
          <li v-for="(one, index) in found.bad" :key="index">{{ span(one) }}: {{ one.sentence }}</li>
        </ul>
      </template>
      <p v-if="!lists.length" class="soft">Nothing in it is new{{ found.same ? `; ${found.same} stand as they are` : '' }}.</p>
      <NButton v-else size="small" type="primary" :disabled="busy" @click="send(true)">Note this leave</NButton>
    </template>
  </div>
</template>

<style scoped>
h4 {
  margin: 6px 0 2px;
  font-size: 12px;
}
ul {
  margin: 0;
  padding-left: 18px;
  font-size: 13px;
}
p {
  margin: 4px 0;
}
</style>
