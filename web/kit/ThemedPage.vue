<script setup lang="ts">
import { NConfigProvider } from 'naive-ui/es/config-provider'
import { computed } from 'vue'
import { naiveTheme, theme } from './theme'
import { WORDS } from './words'

/** Everything in it is drawn in the theme in force, with our words. */
const drawn = computed(() => (theme.value ? naiveTheme() : {}))
</script>

<template>
  <NConfigProvider abstract inline-theme-disabled :theme-overrides="drawn" :locale="WORDS">
    <slot />
  </NConfigProvider>
</template>
