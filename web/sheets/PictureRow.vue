<script setup lang="ts">
import { readAttachment } from '#contract/orders'
import { address } from '#web/kit'

/** Pictures to look at, and documents to download. */
defineProps<{ pictures: { id: number; kind?: 'picture' | 'document'; name?: string }[] }>()
</script>

<template>
  <div class="pictures">
    <a
      v-for="(picture, index) in pictures.filter((one) => one.kind !== 'document')"
      :key="picture.id"
      :href="address(readAttachment, { id: picture.id })"
      target="_blank"
      ><img :src="address(readAttachment, { id: picture.id, small: true })" :alt="`Picture ${index + 1}`" loading="lazy"
    /></a>
    <a v-for="file in pictures.filter((one) => one.kind === 'document')" :key="file.id" class="document" :href="address(readAttachment, { id: file.id })">{{
      file.name
    }}</a>
  </div>
</template>

<style scoped>
.pictures {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
img {
  height: 120px;
  border-radius: 6px;
  border: 1px solid var(--line);
  display: block;
}
.document {
  overflow-wrap: anywhere;
}
</style>
