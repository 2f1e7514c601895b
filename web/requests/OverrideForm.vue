<script setup lang="ts">
import { ref } from 'vue'
import { useDraft } from '#web/kit'

defineProps<{ choices: { value: string; label: string }[] }>()
const emit = defineEmits<{ save: [string, string]; leave: [] }>()
const priority = ref('urgent')
const reason = useDraft(() => `override-${location.pathname}`)
</script>

<template>
  <form class="override" @submit.prevent="emit('save', priority, reason)" @keydown.ctrl.enter.prevent="emit('save', priority, reason)">
    <div class="field">
      <label for="override-priority">Priority</label
      ><select id="override-priority" v-model="priority" class="entry">
        <option v-for="one in choices" :key="one.value" :value="one.value">{{ one.label }}</option>
      </select>
    </div>
    <div class="field grow">
      <label for="override-reason">Why not what the rule gives (needed)</label
      ><input id="override-reason" v-model="reason" class="entry" maxlength="200" required />
    </div>
    <button class="push first" type="submit">Set it</button>
    <button class="push" type="button" @click="emit('leave')">Leave it</button>
  </form>
</template>

<style scoped>
.override {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
}
.grow {
  flex: 1 1 220px;
}
</style>
