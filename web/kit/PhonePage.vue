<script setup lang="ts">
import { NConfigProvider } from 'naive-ui/es/config-provider'
import { ROOMY } from './theme'

/** A page that is read and pressed on a phone first. With a keyboard, a form is sent from wherever one is in it. */
function sendForm(event: KeyboardEvent): void {
  const form = (event.target as HTMLElement).closest('form')
  if (!form || event.defaultPrevented) return
  event.preventDefault()
  if (!form.querySelector<HTMLButtonElement>('button[type="submit"]')?.disabled) form.requestSubmit()
}
</script>

<template>
  <NConfigProvider class="phone roomy" inline-theme-disabled :theme-overrides="ROOMY" @keydown.ctrl.enter="sendForm">
    <slot />
  </NConfigProvider>
</template>

<style src="./phone.css"></style>
