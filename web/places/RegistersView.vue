<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'
import { LABELLED } from '#contract/places'
import { KINDS } from '#contract/portraits'
import type { Permission } from '#core/people'
import { ONE_OF, REGISTER_NAMES, REGISTERS } from '#core/registers'
import type { RegisterName } from '#core/registers'
import { offerActs, TextEntry, useSession, useSoon } from '#web/kit'
import { ListView } from '#web/lists'
import { AddRecord, TreeView } from '#web/portraits'
import LabelBar from './LabelBar.vue'

/** Everything that is looked after, register by register: as a list like any other, places and assets as a tree too. */
const route = useRoute()
const router = useRouter()
const session = useSession()
const register = computed(() => (String(route.params.register || '') || 'places') as RegisterName)
const ofTree = computed(() => (register.value === 'places' || register.value === 'assets' ? register.value : null))
const labelled = computed(() => LABELLED.find((kind) => kind === register.value) ?? null)
const isTree = computed(() => ofTree.value !== null && route.query.as === 'tree')
const adding = ref(false)
const mayAdd = computed(() => session.can(KINDS[register.value].add.may as Permission))
offerActs(() => (mayAdd.value ? [{ label: `New ${ONE_OF[register.value].name}`, run: () => (adding.value = true) }] : []))

/** What is typed to find by is a filter like the others, and stands in the address. */
const typed = computed(() => (typeof route.query.words === 'string' ? route.query.words : ''))
const text = ref(typed.value)
const find = useSoon(() => {
  const { words: _, open: __, ...rest } = route.query
  void router.replace({ query: { ...rest, ...(text.value.trim() ? { words: text.value.trim() } : {}) } })
}, 200)
/** The filter may be taken away, or come with an address, elsewhere. */
watch(typed, (now) => now !== text.value.trim() && (text.value = now))
function type(now: string): void {
  text.value = now
  find()
}

/** What was entered is opened beside the list. */
function added({ id }: { id: number }): void {
  adding.value = false
  void router.push(isTree.value ? `/registers/${register.value}/${id}` : { query: { ...route.query, open: String(id) } })
}
</script>

<template>
  <div class="registers">
    <header>
      <h1>Registers</h1>
      <TextEntry
        v-if="!isTree"
        id="register-q"
        class="find"
        kind="search"
        label-hidden
        :model-value="text"
        :label="`Find in ${REGISTER_NAMES[register]}`"
        :placeholder="`Find in ${REGISTER_NAMES[register].toLowerCase()}`"
        @update:model-value="type(String($event ?? ''))"
      />
      <span class="grow" />
      <RouterLink v-if="register === 'assets'" to="/transfers">Transfers</RouterLink>
      <RouterLink v-if="ofTree && session.can('registers.edit')" to="/cobie">COBie</RouterLink>
      <RouterLink v-if="mayAdd" :to="`/registers/${register}/table`">From a table</RouterLink>
      <RouterLink to="/documents">Documents</RouterLink>
      <RouterLink v-if="ofTree" to="/floorplans">Floor plans</RouterLink>
      <RouterLink v-if="register === 'places' && session.can('spaces.say')" to="/readiness">Readiness</RouterLink>
      <RouterLink v-if="ofTree && !isTree" :to="`/registers/${register}?as=tree`">As a tree</RouterLink>
      <RouterLink v-if="isTree" :to="`/registers/${register}`">As a list</RouterLink>
      <NButton v-if="mayAdd" type="primary" @click="adding = true">New {{ ONE_OF[register].name }}</NButton>
    </header>
    <nav class="tabs" aria-label="Registers">
      <RouterLink v-for="key in REGISTERS" :key="key" :to="`/registers/${key}`" :aria-current="key === register ? 'page' : undefined">{{
        REGISTER_NAMES[key]
      }}</RouterLink>
    </nav>
    <div v-if="isTree" class="tree"><TreeView /></div>
    <ListView v-else :key="register" class="list" :kind="register">
      <template #marked="{ lines }">
        <template v-if="labelled && lines.length">
          <LabelBar :kind="labelled" :ids="lines.map((line) => line.id)" />
          <NButton
            v-if="ofTree && session.can('orders.edit')"
            size="small"
            @click="router.push({ path: '/templates', query: { [ofTree!]: lines.map((line) => line.id).join() } })"
            >Make orders for them</NButton
          >
        </template>
      </template>
    </ListView>
    <AddRecord v-if="adding" :key="register" :register="register" @close="adding = false" @added="added" />
  </div>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.registers {
  height: 100%;
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: var(--sheet);
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  padding: 10px 16px 6px;
}
.grow {
  flex: 1;
}
.find {
  width: 280px;
}
.tabs {
  padding: 0 16px;
}
.list {
  flex: 1;
  min-height: 0;
}
.tree {
  flex: 1;
  min-height: 0;
  display: flex;
  padding: 10px 16px;
}
</style>
