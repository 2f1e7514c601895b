import type { Route } from '#server/kit'
import { bookEquipment, cancelBooking, giveBack, handOut, moveBooking } from './changeBooking'
import { bringEquipmentBack, takeEquipment } from './onJob'
import { checkBooking, listBookingsOf, readEquipmentCalendar, readOrderBookings } from './readBookings'

export * from './bookingWatch'
export const routes: Route[] = [
  readEquipmentCalendar,
  listBookingsOf,
  checkBooking,
  readOrderBookings,
  bookEquipment,
  moveBooking,
  cancelBooking,
  handOut,
  giveBack,
  takeEquipment,
  bringEquipmentBack,
]
