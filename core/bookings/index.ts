export * from './bookings'
export * from './events'
