export { default as PostingList } from './PostingList.vue'
