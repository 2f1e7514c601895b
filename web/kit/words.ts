import enUS from 'naive-ui/es/locales/common/enUS'
import type { NLocale } from 'naive-ui'

/** What components say by themselves, in our words. */
export const WORDS: NLocale = {
  ...enUS,
  Empty: { description: 'Nothing here' },
  Select: { placeholder: 'Choose' },
  Popconfirm: { positiveText: 'Do it', negativeText: 'Leave it' },
  DatePicker: {
    ...enUS.DatePicker,
    firstDayOfWeek: 0,
    now: 'Now',
    today: 'Today',
    confirm: 'Take it',
    clear: 'Empty it',
    selectTime: 'Time',
    selectDate: 'Day',
    datePlaceholder: 'Day',
    datetimePlaceholder: 'Day and time',
  },
  DataTable: { ...enUS.DataTable, checkTableAll: 'Mark every row', uncheckTableAll: 'Unmark every row', confirm: 'Take it', clear: 'Empty it' },
  TimePicker: { ...enUS.TimePicker, placeholder: 'Time', positiveText: 'Take it', negativeText: 'Leave it', now: 'Now', clear: 'Empty it' },
}
