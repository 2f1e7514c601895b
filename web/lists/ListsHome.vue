<script setup lang="ts">
import { useRouter } from 'vue-router'
import { ProblemNote, useLoading } from '#web/kit'
import { addressOf, useViews } from './useViews'

/** Lists open with the view somebody chose as their usual one. */
const router = useRouter()
const store = useViews()
const home = useLoading(async () => {
  const { rows, usual } = await store.load()
  await router.replace(addressOf(rows.find((view) => view.key === usual) ?? rows[0]!))
})
void home.load()
</script>

<template>
  <ProblemNote v-if="home.problem.value" :problem="home.problem.value" @retry="home.load" />
  <div v-else class="empty" role="status" aria-label="Loading">Your usual view is on its way.</div>
</template>
