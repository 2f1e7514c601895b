export { orderSections } from './sections'
