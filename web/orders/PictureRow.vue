<script setup lang="ts">
import { readAttachment } from '#contract/orders'
import { address } from '#web/kit'

defineProps<{ pictures: { id: number }[] }>()
</script>

<template>
  <div class="pictures">
    <a v-for="(picture, index) in pictures" :key="picture.id" :href="address(readAttachment, { id: picture.id })" target="_blank"
      ><img :src="address(readAttachment, { id: picture.id })" :alt="`Picture ${index + 1}`" loading="lazy"
    /></a>
  </div>
</template>

<style scoped>
.pictures {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
img {
  height: 120px;
  border-radius: 6px;
  border: 1px solid var(--line);
  display: block;
}
</style>
