export * from './bookings'
export * from './hire'
export * from './events'
