<script setup lang="ts">
import { UnableList } from '#web/approvals'
import { PromiseTable } from '#web/orders'
import { AccountTable } from '#web/people'
import NumberTable from './NumberTable.vue'
import SetupTabs from './SetupTabs.vue'
import UntoldList from './UntoldList.vue'

/** What rooms bring to be set up, each part reading and keeping its own. What waits for an administrator comes first. */
</script>

<template>
  <div class="page">
    <header>
      <h1>Setup</h1>
      <SetupTabs />
    </header>
    <UntoldList />
    <UnableList />
    <PromiseTable />
    <NumberTable />
    <AccountTable />
  </div>
</template>

<style scoped src="../kit/page.css"></style>
