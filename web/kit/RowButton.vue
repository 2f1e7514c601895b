<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'

/** Something drawn by ourselves that is pressed: a row, a card, a heading, a mark. It looks like what is in it. */
</script>

<template>
  <NButton text :focusable="true" class="row-button"><slot /></NButton>
</template>

<style>
.row-button.n-button {
  height: auto;
  justify-content: normal;
  align-items: normal;
  text-align: left;
  white-space: normal;
  font-size: inherit;
  line-height: inherit;
}
.row-button.n-button > .n-button__content {
  display: contents;
}
/* Text that runs as it would outside of a button. */
.row-button.n-button.plain {
  display: block;
}
</style>
