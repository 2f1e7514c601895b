import { defineAsyncComponent } from 'vue'

export * from './found'
/** Loaded with the first list that is opened. */
export const ListView = defineAsyncComponent(() => import('./ListView.vue'))
