<script setup lang="ts">
import { RowButton } from '#web/kit'
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import type { CategoryRow, IntakeSetup } from '#contract/setup'
import { counted } from '#core/kit'
import type { CallProblem } from '#web/kit'
import CategoryForm from './CategoryForm.vue'

const props = defineProps<{ setup: IntakeSetup; keep: (change: () => Promise<IntakeSetup>, done: string) => Promise<boolean>; problem: CallProblem | null }>()
const open = ref<number | 'new' | null>(null)
/** Each with those under it, in the order the Counter shows them. */
const rows = computed(() => {
  const under = (id: number | null) => props.setup.categories.filter((one) => one.parentId === id)
  return under(null).flatMap((top) => [{ row: top, deep: false }, ...under(top.id).map((row) => ({ row, deep: true }))])
})
const fresh = (): CategoryRow => ({
  id: 0,
  parentId: null,
  code: '',
  name: '',
  hint: null,
  tradeId: null,
  position: props.setup.categories.length * 10,
  retired: false,
  round: 0,
  questions: [],
})
const current = computed(() => (open.value === 'new' ? fresh() : (props.setup.categories.find((one) => one.id === open.value) ?? null)))
</script>

<template>
  <section aria-label="Categories">
    <h2>What requests are about</h2>
    <p class="soft">Changed questions are asked from now on; answers given before keep the questions they were given to.</p>
    <div class="split">
      <ul class="tree">
        <li v-for="{ row, deep } in rows" :key="row.id" :class="{ deep }">
          <RowButton class="plain" :class="{ here: open === row.id, gone: row.retired }" @click="open = row.id">
            {{ row.name }} <span class="soft">{{ row.retired ? 'not offered' : row.questions.length ? counted(row.questions.length, 'question') : '' }}</span>
          </RowButton>
        </li>
        <li><NButton @click="open = 'new'">Add a category</NButton></li>
      </ul>
      <CategoryForm
        v-if="current"
        :key="String(open)"
        :category="current"
        :categories="setup.categories"
        :problem="problem"
        :keep="keep"
        @leave="open = null"
      />
      <p v-else class="soft">Choose one to change its name, place in the list or questions.</p>
    </div>
  </section>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.split {
  display: grid;
  grid-template-columns: 260px minmax(0, 1fr);
  gap: 24px;
  align-items: start;
}
.tree {
  list-style: none;
  margin: 0;
  padding: 0;
}
.deep {
  padding-left: 20px;
}
.tree .plain {
  width: 100%;
  padding: 6px 8px;
  border-radius: 6px;
}
.tree .plain:hover {
  background: var(--shoal-faint);
}
.here {
  background: var(--shoal) !important;
}
.gone {
  text-decoration: line-through;
}
@media (max-width: 800px) {
  .split {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
