<script setup lang="ts">
import { ref } from 'vue'
import { useRoute } from 'vue-router'
import type { TimesPage } from '#contract/windows'
import { PhonePage } from '#web/kit'
import TimesChoice from './TimesChoice.vue'

/** What the link in a mail opens: when somebody may come, to be chosen on a phone. */
const token = String(useRoute().params.token)
const it = ref<TimesPage | null>(null)
</script>

<template>
  <PhonePage>
    <header>
      <p v-if="it">{{ it.site.name }}</p>
      <h1>{{ it?.summary ?? 'A time to come' }}</h1>
      <p v-if="it">
        <span class="mono">{{ it.number }}</span><template v-if="it.place">, {{ it.place }}</template>
      </p>
    </header>
    <main>
      <TimesChoice :token="token" @read="it = $event" />
      <p v-if="it" class="label">
        {{ it.name }}, this link is yours alone. Questions: <a :href="`tel:${it.site.deskPhone.replace(/ /g, '')}`">{{ it.site.deskPhone }}</a>
      </p>
    </main>
  </PhonePage>
</template>
