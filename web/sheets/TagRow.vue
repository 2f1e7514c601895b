<script setup lang="ts">
import { PickField, RowButton } from '#web/kit'
import type { Choice } from '#web/kit'

/** A few things that are so, as tags: one is added from a list, or taken away. */
const props = defineProps<{ id: string; of: string; tags: { id: number; name: string }[]; choices: Choice[]; whyNot: string | null; none: string }>()
const emit = defineEmits<{ keep: [ids: number[]] }>()
const ids = () => props.tags.map((tag) => tag.id)
</script>

<template>
  <p class="tags">
    <span v-for="tag in tags" :key="tag.id" class="tag"
      >{{ tag.name
      }}<RowButton
        v-if="!whyNot"
        class="plain"
        :aria-label="`Take the ${of} ${tag.name} away`"
        @click="
          emit(
            'keep',
            ids().filter((id) => id !== tag.id),
          )
        "
        >×</RowButton
      ></span
    >
    <span v-if="!tags.length" class="soft">{{ none }}</span>
    <PickField
      v-if="!whyNot && choices.length > tags.length"
      :id="id"
      class="add"
      :label="`Add a ${of}`"
      label-hidden
      :placeholder="`Add a ${of}`"
      :value="null"
      :choices="choices.filter((one) => !tags.some((tag) => tag.id === one.value))"
      @pick="(picked) => picked && emit('keep', [...ids(), Number(picked)])"
    />
  </p>
</template>

<style scoped>
.tags {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.tag {
  display: inline-flex;
  align-items: center;
  gap: 4px;
  border: 1px solid var(--line-strong);
  border-radius: 3px;
  padding: 1px 8px;
  font-size: 13px;
}
.add {
  width: 160px;
}
</style>
