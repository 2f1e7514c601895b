<script setup lang="ts">
import { NConfigProvider } from 'naive-ui/es/config-provider'
import { ROOMY } from './theme'

/** A page that is read and pressed on a phone first. */
</script>

<template>
  <NConfigProvider class="phone roomy" inline-theme-disabled :theme-overrides="ROOMY">
    <slot />
  </NConfigProvider>
</template>

<style src="./phone.css"></style>
