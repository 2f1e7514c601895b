<script setup lang="ts">
import { FileEntry, TextEntry } from '#web/kit'
import { NButton } from 'naive-ui/es/button'
import Image from '@tiptap/extension-image'
import StarterKit from '@tiptap/starter-kit'
import { EditorContent, useEditor } from '@tiptap/vue-3'
import { ref, watch } from 'vue'

/** Text with headings, lists, links and, where it can be sent, pictures. What the server keeps is cleaned there. */
const props = defineProps<{ id: string; label: string; addPicture?: (file: File) => Promise<string | null> }>()
const html = defineModel<string>({ required: true })
const linking = ref(false)
const link = ref('')
const editor = useEditor({
  content: html.value,
  // The policy of the page allows no style that is not ours.
  injectCSS: false,
  extensions: [
    StarterKit.configure({ heading: { levels: [2, 3] }, code: false, codeBlock: false, strike: false, horizontalRule: false, link: { openOnClick: false } }),
    Image,
  ],
  editorProps: { attributes: { id: props.id, class: 'entry rich', role: 'textbox', 'aria-multiline': 'true', 'aria-label': props.label } },
  onUpdate: ({ editor: changed }) => (html.value = changed.isEmpty ? '' : changed.getHTML()),
})
watch(html, (now) => {
  if (editor.value && now !== (editor.value.isEmpty ? '' : editor.value.getHTML())) editor.value.commands.setContent(now)
})

const MARKS = [
  { name: 'Bold', is: () => editor.value?.isActive('bold'), act: () => editor.value?.chain().focus().toggleBold().run() },
  { name: 'Italic', is: () => editor.value?.isActive('italic'), act: () => editor.value?.chain().focus().toggleItalic().run() },
  { name: 'Heading', is: () => editor.value?.isActive('heading'), act: () => editor.value?.chain().focus().toggleHeading({ level: 2 }).run() },
  { name: 'Bullets', is: () => editor.value?.isActive('bulletList'), act: () => editor.value?.chain().focus().toggleBulletList().run() },
  { name: 'Numbers', is: () => editor.value?.isActive('orderedList'), act: () => editor.value?.chain().focus().toggleOrderedList().run() },
]

function setLink(): void {
  const chain = editor.value?.chain().focus().extendMarkRange('link')
  if (link.value.trim()) chain?.setLink({ href: link.value.trim() }).run()
  else chain?.unsetLink().run()
  linking.value = false
}
function beginLink(): void {
  link.value = (editor.value?.getAttributes('link').href as string | undefined) ?? ''
  linking.value = !linking.value
}
async function picture([file]: File[]): Promise<void> {
  const src = file && (await props.addPicture?.(file))
  if (src) editor.value?.chain().focus().setImage({ src, alt: file.name }).run()
}
</script>

<template>
  <div class="field">
    <span class="name">{{ label }}</span>
    <div class="marks" role="toolbar" :aria-label="`${label}: form`">
      <NButton v-for="mark in MARKS" :key="mark.name" :aria-pressed="!!mark.is()" @click="mark.act">{{ mark.name }}</NButton>
      <NButton :aria-expanded="linking" @click="beginLink">Link</NButton>
      <FileEntry v-if="addPicture" :id="`${id}-picture`" class="picture" label-hidden label="Picture" press="Picture" accept="image/*" @choose="picture" />
    </div>
    <div v-if="linking" class="marks">
      <TextEntry
        :id="`${id}-link`"
        v-model="link"
        class="address"
        label-hidden
        label="Address of the link"
        placeholder="https://"
        @keydown.enter.prevent="setLink"
      />
      <NButton @click="setLink">Set</NButton>
    </div>
    <EditorContent :editor="editor" />
  </div>
</template>

<style scoped>
.marks {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.address {
  flex: 1;
}
.marks [aria-pressed='true'] {
  background: var(--shoal);
}
.field :deep(.rich) {
  min-height: 160px;
  height: auto;
  white-space: break-spaces;
  overflow-wrap: anywhere;
  padding: 8px 12px;
}
.field :deep(.rich > *) {
  margin: 0 0 8px;
}
.field :deep(.rich img) {
  max-width: 100%;
  height: auto;
}
</style>
