import { defineAsyncComponent } from 'vue'

/** Loaded with the first Portrait that is opened. */
export const PortraitDrawer = defineAsyncComponent(() => import('./PortraitDrawer.vue'))
export const RecordPortrait = defineAsyncComponent(() => import('./RecordPortrait.vue'))
/** Loaded when something is entered. */
export const AddRecord = defineAsyncComponent(() => import('./AddRecord.vue'))
export const TreeView = defineAsyncComponent(() => import('./TreeView.vue'))
export const EntryField = defineAsyncComponent(() => import('./EntryField.vue'))
export { choiceLabel, finderOf } from './recordFields'
