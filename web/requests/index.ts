export { default as QuestionFields } from './QuestionFields.vue'
export { default as RequestSheet } from './RequestSheet.vue'
