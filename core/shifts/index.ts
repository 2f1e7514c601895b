export * from './leaveAsks'
export * from './onCall'
export * from './leaveCalendar'
export * from './events'
