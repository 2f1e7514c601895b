<script setup lang="ts">
import { computed } from 'vue'
import { readAttachment } from '#contract/orders'
import { PHOTO_STAGE_NAMES } from '#core/field'
import type { PhotoStage } from '#core/field'
import { address } from '#web/kit'

/** Pictures to look at, and documents to download. */
const props = defineProps<{ pictures: { id: number; kind?: 'picture' | 'document'; name?: string; stage?: PhotoStage | 'signature' | null }[] }>()
const CAPTIONS = { ...PHOTO_STAGE_NAMES, signature: 'Signature' }
const shown = computed(() => props.pictures.filter((one) => one.kind !== 'document'))
</script>

<template>
  <div class="pictures">
    <a v-for="(picture, index) in shown" :key="picture.id" :href="address(readAttachment, { id: picture.id })" target="_blank"
      ><img
        :src="address(readAttachment, { id: picture.id, small: true })"
        :alt="`${picture.stage ? CAPTIONS[picture.stage] : 'Picture'} ${index + 1}`"
        loading="lazy"
      /><span v-if="picture.stage" class="soft">{{ CAPTIONS[picture.stage] }}</span></a
    >
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
