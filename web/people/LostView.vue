<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { useRoute } from 'vue-router'

const route = useRoute()
</script>

<template>
  <main class="empty">
    <h1>{{ route.query.why === 'role' ? 'Your role does not include this' : 'There is nothing at this address' }}</h1>
    <p>{{ route.query.why === 'role' ? 'An administrator can give you the role in Setup.' : 'The address may have been copied in part.' }}</p>
    <NButton tag="a" href="/">Go to your first screen</NButton>
  </main>
</template>
