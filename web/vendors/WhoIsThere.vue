<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import type { PassSheet } from '#contract/vendors'
import { TextEntry, vBegins } from '#web/kit'
import type { CallProblem } from '#web/kit'

/** Who of the vendor works there alone: the desk calls them, and not their firm. */
const props = defineProps<{ there: PassSheet['there']; busy: boolean; problem: CallProblem | null }>()
const emit = defineEmits<{ say: [{ name: string; phone: string }] }>()
const saying = ref(false)
const said = ref({ name: '', phone: '' })
function begin(): void {
  said.value = { name: props.there?.name ?? '', phone: props.there?.phone ?? '' }
  saying.value = true
}
function say(): void {
  if (said.value.name.trim()) emit('say', { name: said.value.name.trim(), phone: said.value.phone.trim() })
}
defineExpose({ close: () => (saying.value = false) })
</script>

<template>
  <form v-if="saying" v-begins="'who'" class="asks" aria-label="Who is there" @submit.prevent="say" @keydown.esc="saying = false">
    <TextEntry id="there-name" v-model="said.name" label="Who is there" autocomplete="name" :max="80" required :problem="problem?.at('name')" />
    <TextEntry id="there-phone" v-model="said.phone" label="Mobile number" kind="tel" autocomplete="tel" :max="40" :problem="problem?.at('phone')" />
    <p v-if="problem?.apart" class="problem" role="alert">{{ problem.apart }}</p>
    <NButton attr-type="submit" :disabled="busy || !said.name.trim()">Tell the desk</NButton>
    <NButton @click="saying = false">Not now</NButton>
  </form>
  <p v-else>
    <template v-if="there">
      The desk calls <strong>{{ there.name }}</strong> on
      <span v-if="there.phone" class="mono">{{ there.phone }}</span>
      <template v-else>the number of your firm</template>.
    </template>
    <template v-else>If you are not heard of, the desk calls your firm.</template>
    <NButton data-opens="who" @click="begin">{{ there ? 'Somebody else is there' : 'Say who is there' }}</NButton>
  </p>
</template>

<style scoped>
p {
  margin: 0;
}
.mono {
  white-space: nowrap;
}
p .n-button {
  margin-top: 8px;
  display: flex;
}
</style>
