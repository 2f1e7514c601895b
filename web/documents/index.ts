export { documentsSection } from './section'
export { default as SharedDocuments } from './SharedDocuments.vue'
