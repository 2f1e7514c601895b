import { eq } from 'drizzle-orm'
import { DateTime } from 'luxon'
import * as contract from '#contract/setup'
import { refuse } from '#core/kit'
import { command, conflict, mustReach } from '#server/kit'
import { setCalendar } from '#server/places'
import { sites } from '../tables'
import { readRuleBookSheet } from './ruleBookSheet'

export default command(contract.saveCalendar, async ({ tx, who, input, tell }) => {
  await mustReach(tx, who, input.siteId)
  const [site] = await tx.select().from(sites).where(eq(sites.id, input.siteId)).for('update')
  if (site!.calendarVersion !== input.version) throw conflict(site!.calendarVersion, [])
  const week = input.week.map((day) => [...day].sort((a, b) => a.from.localeCompare(b.from)))
  for (const day of week)
    day.forEach((stretch, index) => {
      if (stretch.to <= stretch.from) refuse('hours_backwards', `Hours from ${stretch.from} to ${stretch.to} end before they begin.`, 'week')
      if (day[index + 1] && day[index + 1]!.from < stretch.to)
        refuse('hours_overlap', `Hours of one day lie over each other at ${day[index + 1]!.from}.`, 'week')
    })
  if (!week.some((day) => day.length)) refuse('never_open', 'Leave at least one stretch of working hours: promises are counted in them.', 'week')
  const unreal = input.holidays.find((day) => !DateTime.fromISO(day).isValid)
  if (unreal) refuse('no_such_day', `${unreal} is not a day of the calendar.`, 'holidays')
  const calendar = { zone: site!.zone, week, holidays: [...input.holidays].sort() }
  await setCalendar(tx, site!, calendar)
  await tell({ kind: 'setup.calendar', siteId: input.siteId, details: { fields: { calendar: { from: site!.calendar, to: calendar } } } })
  return readRuleBookSheet(tx, input.siteId)
})
