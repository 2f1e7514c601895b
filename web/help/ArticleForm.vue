<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { addArticleFile, readHelpFile, saveArticle } from '#contract/help'
import type { ArticleRow, HelpSheet } from '#contract/help'
import type { Vocabulary } from '#contract/people'
import { rowsNamed, FileEntry, ListEntry, TextEntry, address, call, CallProblem, DraftNote, useFormDraft, PickField, useVocabulary } from '#web/kit'
import RichTextField from './RichTextField.vue'

/** A help article: what people can do themselves, shown while they type words that fit. */
const props = defineProps<{
  article: ArticleRow | null
  sites: Vocabulary['sites']
  problem: CallProblem | null
  keep: (change: () => Promise<HelpSheet>, done: string) => Promise<boolean>
}>()
const emit = defineEmits<{ leave: []; changed: [] }>()
const words = useVocabulary()
void words.ensure()
const { form, kept, drop } = useFormDraft(`article-${props.article?.id ?? 'new'}-${props.article?.version ?? 0}`, {
  siteId: props.article?.siteId ?? props.sites[0]!.id,
  categoryId: props.article?.categoryId ?? null,
  title: props.article?.title ?? '',
  body: props.article?.body ?? '',
})
const documents = ref([...(props.article?.documents ?? [])])
const mine = ref(false)
const failed = ref('')
const at = (field: string) => (mine.value ? props.problem?.at(field) : undefined)

async function add(file: File): Promise<string | null> {
  failed.value = ''
  try {
    const kept = await call(addArticleFile, { id: props.article!.id, name: file.name }, { file })
    if (kept.kind === 'picture') return kept.address
    documents.value.push({ id: kept.id, name: kept.name, bytes: file.size })
    emit('changed')
  } catch (error) {
    failed.value = error instanceof CallProblem ? (error.reasons[0]?.sentence ?? error.message) : 'The file was not taken.'
  }
  return null
}
async function addPicture(file: File): Promise<string | null> {
  const src = await add(file)
  if (!src && !failed.value) failed.value = 'That is no picture; it was added as a document.'
  return src
}
async function addDocument([file]: File[]): Promise<void> {
  if (file && (await add(file))) failed.value = 'That is a picture: add it with “Picture” where it should stand.'
}
const entry = (withdrawn: boolean) => ({ ...(props.article ? { id: props.article.id, version: props.article.version } : {}), ...form, withdrawn })
async function save(withdrawn: boolean): Promise<void> {
  mine.value = true
  const done = withdrawn ? 'The article is withdrawn; nobody sees it from now on.' : 'The article is saved.'
  if (await props.keep(() => call(saveArticle, entry(withdrawn)), done)) leave()
}
function leave(): void {
  drop()
  emit('leave')
}
</script>

<template>
  <form class="form" aria-label="Help article" @submit.prevent="save(false)">
    <DraftNote :kept="kept" @drop="drop" />
    <div class="grid">
      <TextEntry id="article-title" v-model="form.title" label="Title" :max="140" :problem="at('title')" class="wide" />
      <ListEntry id="article-site" v-model="form.siteId" label="Site" :disabled="!!article" :options="rowsNamed(sites)" />
      <PickField
        id="article-category"
        label="Category it belongs to"
        :value="form.categoryId"
        :choices="words.choices((all) => all.categories)"
        clearable
        @pick="form.categoryId = $event as number | null"
      />
    </div>
    <RichTextField id="article-body" v-model="form.body" label="Text" :add-picture="article ? addPicture : undefined" />
    <div v-if="article">
      <FileEntry id="article-document" label="Add a document" @choose="addDocument" />
      <ul v-if="documents.length" class="chips" aria-label="Documents">
        <li v-for="one in documents" :key="one.id">
          <a :href="address(readHelpFile, { id: one.id })">{{ one.name }}</a>
        </li>
      </ul>
    </div>
    <p v-else class="soft">Pictures and documents can be added once it is saved.</p>
    <p v-if="failed" class="problem" role="alert">{{ failed }}</p>
    <p class="acts">
      <NButton type="primary" attr-type="submit">Save</NButton>
      <NButton v-if="article && !article.withdrawn" @click="save(true)">Withdraw</NButton>
      <NButton @click="leave">Leave it as it was</NButton>
    </p>
  </form>
</template>

<style scoped src="./form.css"></style>
