<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NSelect } from 'naive-ui/es/select'
import { NTag } from 'naive-ui/es/tag'
import { computed, ref } from 'vue'
import type { AccountsSheet } from '#contract/people'
import { ROLE_NAMES, ROLES } from '#core/people'
import type { Grant, Role } from '#core/people'

/** The roles of somebody, each at its site: those out of this administrator's reach can be read, not taken. */
const props = defineProps<{ name: string; grants: Grant[]; sites: AccountsSheet['sites']; everywhere: boolean }>()
const emit = defineEmits<{ save: [Grant[]] }>()
const role = ref<Role | null>(null)
const site = ref<number | null>(props.everywhere ? 0 : (props.sites[0]?.id ?? null))
/** 0 stands for every site, since a select has no value for nothing. */
const siteOptions = computed(() => [
  ...(props.everywhere ? [{ value: 0, label: 'every site' }] : []),
  ...props.sites.map((one) => ({ value: one.id, label: one.code })),
])
const codeOf = (id: number | null) => (id === null ? 'every site' : (props.sites.find((one) => one.id === id)?.code ?? 'another site'))
const reached = (grant: Grant) => props.everywhere || props.sites.some((one) => one.id === grant.siteId)
const wordsOf = (grant: Grant) => `${ROLE_NAMES[grant.role]}, ${codeOf(grant.siteId)}`

function add(): void {
  if (!role.value || site.value === null) return
  emit('save', [...props.grants, { role: role.value, siteId: site.value || null }])
  role.value = null
}
const without = (grant: Grant) =>
  emit(
    'save',
    props.grants.filter((one) => one !== grant),
  )
</script>

<template>
  <div class="grants">
    <NTag v-for="grant in grants" :key="`${grant.role}-${grant.siteId}`" size="small" :bordered="false" class="grant">
      {{ wordsOf(grant) }}
      <NButton v-if="reached(grant)" text size="tiny" class="take" :aria-label="`Take ${wordsOf(grant)} from ${name}`" @click="without(grant)">×</NButton>
    </NTag>
    <span class="add">
      <NSelect
        v-model:value="role"
        size="small"
        class="role-choice"
        placeholder="Role"
        :options="ROLES.map((one) => ({ value: one, label: ROLE_NAMES[one] }))"
        :input-props="{ 'aria-label': `Another role for ${name}` }"
      />
      <NSelect
        v-model:value="site"
        size="small"
        class="site-choice"
        :options="siteOptions"
        :input-props="{ 'aria-label': `Site of another role for ${name}` }"
      />
      <NButton size="small" :disabled="!role || site === null" :aria-label="`Give ${name} the role`" @click="add">Give</NButton>
    </span>
  </div>
</template>

<style scoped>
.grants,
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 6px;
  align-items: center;
}
.take {
  margin-left: 6px;
  min-width: 18px;
}
.role-choice {
  width: 140px;
}
.site-choice {
  width: 110px;
}
</style>
