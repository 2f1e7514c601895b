<script setup lang="ts">
import { RouterView } from 'vue-router'
import { ThemedPage } from '#web/kit'
</script>

<template>
  <ThemedPage><RouterView /></ThemedPage>
</template>
