<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { readHelp } from '#contract/help'
import { RowButton, call, ProblemNote, serverNow, shortTime, useKeeping, useLoading, useSession, useVocabulary } from '#web/kit'
import ArticleForm from './ArticleForm.vue'
import BulletinForm from './BulletinForm.vue'
import { BULLETIN_KINDS } from './kinds'

/** What occupants read before they report: notices for places, and help articles. */
const sheet = useLoading(() => call(readHelp, {}))
void sheet.load()
const session = useSession()
const mayEdit = computed(() => session.can('help.edit'))
const words = useVocabulary()
void words.ensure()
const sites = computed(() => words.lists?.sites ?? [])
const { problem, keep } = useKeeping(sheet)
const open = ref<{ what: 'bulletin' | 'article'; id: number | null } | null>(null)
const bulletin = computed(() => sheet.value.value?.bulletins.find((one) => one.id === open.value?.id) ?? null)
const article = computed(() => sheet.value.value?.articles.find((one) => one.id === open.value?.id) ?? null)

function standing(one: { startsAt: string; endsAt: string; withdrawn: boolean }): string {
  if (one.withdrawn) return 'withdrawn'
  const now = serverNow()
  if (new Date(one.endsAt) <= now) return 'over'
  return new Date(one.startsAt) <= now ? 'shown now' : 'to come'
}
function choose(what: 'bulletin' | 'article', id: number | null): void {
  problem.value = null
  open.value = { what, id }
}
</script>

<template>
  <div class="page">
    <header>
      <h1>Notices and help</h1>
      <template v-if="mayEdit">
        <NButton type="primary" @click="choose('bulletin', null)">Write a notice</NButton>
        <NButton @click="choose('article', null)">Write a help article</NButton>
      </template>
    </header>
    <ProblemNote v-if="sheet.problem.value && !sheet.value.value" :problem="sheet.problem.value" @retry="sheet.load" />
    <div v-else-if="sheet.value.value && sites.length" class="split" :class="{ editing: open }">
      <div class="lists">
        <section aria-label="Notices">
          <h2>Notices</h2>
          <ul v-if="sheet.value.value.bulletins.length">
            <li v-for="one in sheet.value.value.bulletins" :key="one.id" :class="{ gone: one.withdrawn }">
              <component
                :is="mayEdit ? RowButton : 'div'"
                class="row"
                :class="{ here: open?.what === 'bulletin' && open.id === one.id }"
                @click="mayEdit && choose('bulletin', one.id)"
              >
                <strong>{{ BULLETIN_KINDS[one.kind] }}: {{ one.title }}</strong>
                <span class="standing" :class="standing(one).replace(' ', '-')">{{ standing(one) }}</span>
                <span class="soft when"
                  ><span class="mono">{{ shortTime(one.startsAt) }}</span> to <span class="mono">{{ shortTime(one.endsAt) }}</span>,
                  {{ one.places.map((place) => place.name).join(', ') }}</span
                >
              </component>
            </li>
          </ul>
          <p v-else class="soft">No notices. Write one when something closes: it shows to whoever reports from there.</p>
        </section>
        <section aria-label="Help articles">
          <h2>Help articles</h2>
          <ul v-if="sheet.value.value.articles.length">
            <li v-for="one in sheet.value.value.articles" :key="one.id" :class="{ gone: one.withdrawn }">
              <component
                :is="mayEdit ? RowButton : 'div'"
                class="row"
                :class="{ here: open?.what === 'article' && open.id === one.id }"
                @click="mayEdit && choose('article', one.id)"
              >
                <strong>{{ one.title }}</strong>
                <span v-if="one.withdrawn" class="standing">withdrawn</span>
                <span class="soft when"
                  >changed <span class="mono">{{ shortTime(one.changedAt) }}</span>{{
                    one.documents.length ? `, with ${one.documents.length === 1 ? 'a document' : `${one.documents.length} documents`}` : ''
                  }}</span
                >
              </component>
            </li>
          </ul>
          <p v-else class="soft">No help articles. What people can mend themselves is worth one.</p>
        </section>
      </div>
      <BulletinForm
        v-if="open?.what === 'bulletin'"
        :key="`b${open.id}`"
        :bulletin="bulletin"
        :sites="sites"
        :problem="problem"
        :keep="keep"
        @leave="open = null"
      />
      <ArticleForm
        v-else-if="open?.what === 'article'"
        :key="`a${open.id}`"
        :article="article"
        :sites="sites"
        :problem="problem"
        :keep="keep"
        @leave="open = null"
        @changed="sheet.load"
      />
    </div>
    <div v-else class="bones wait" />
  </div>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.split {
  display: grid;
  gap: 24px;
  align-items: start;
}
.split.editing {
  grid-template-columns: minmax(280px, 1fr) minmax(0, 1.4fr);
}
.lists {
  display: grid;
  gap: 24px;
  max-width: 860px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li + li {
  border-top: 1px solid var(--line);
}
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) max-content;
  gap: 2px 12px;
  width: 100%;
  padding: 8px;
  text-align: left;
  border-radius: 6px;
}
button.row:hover {
  background: var(--shoal-faint);
}
.here {
  background: var(--shoal);
}
.when {
  grid-column: 1 / -1;
}
.standing {
  color: var(--ink-soft);
}
.shown-now {
  color: var(--tide-text);
  font-weight: 600;
}
.gone strong {
  text-decoration: line-through;
}
@media (max-width: 800px) {
  .split.editing {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
