import { leaveIn } from '#core/shifts'
import type { CalendarLeave } from '#core/shifts'

export interface LeaveFileJob {
  content: Uint8Array
  zone: string
  from: Date
  until: Date
}

/** Reads a calendar away from the thread that answers; what is no calendar is said. */
export default ({ content, zone, from, until }: LeaveFileJob): CalendarLeave[] | { wrong: string } => {
  try {
    return leaveIn(new TextDecoder().decode(content), zone, from, until)
  } catch (error) {
    return error instanceof Error && error.message === 'too many entries'
      ? { wrong: 'There are more than 500 entries in it. Export the leave of one person alone.' }
      : { wrong: 'This is no calendar in the iCalendar format (.ics), or it is damaged.' }
  }
}
