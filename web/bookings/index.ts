export { default as BookingRow } from './BookingRow.vue'
export { default as OrderBookings } from './OrderBookings.vue'
