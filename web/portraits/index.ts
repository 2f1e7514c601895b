import { defineAsyncComponent } from 'vue'

/** Loaded with the first Portrait that is opened. */
export const PortraitDrawer = defineAsyncComponent(() => import('./PortraitDrawer.vue'))
/** Loaded when something is entered. */
export const AddRecord = defineAsyncComponent(() => import('./AddRecord.vue'))
export const TreeView = defineAsyncComponent(() => import('./TreeView.vue'))
export { KINDS } from './kinds'
export type { AnyRecord } from './kinds'
