import { eq } from 'drizzle-orm'
import { DateTime } from 'luxon'
import * as contract from '#contract/setup'
import { refuse } from '#core/kit'
import { command } from '#server/kit'
import { sites } from '../tables'
import { lockRuleBook } from './lockRuleBook'
import { readRuleBookSheet } from './ruleBookSheet'

export default command(contract.saveCalendar, async ({ tx, who, input, tell }) => {
  const { site } = await lockRuleBook(tx, who, input.siteId, input.version)
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
  const calendar = { zone: site.zone, week, holidays: [...input.holidays].sort() }
  await tx.update(sites).set({ calendar }).where(eq(sites.id, site.id))
  await tell({ kind: 'setup.calendar', siteId: site.id, details: { fields: { calendar: { from: site.calendar, to: calendar } } } })
  return readRuleBookSheet(tx, site.id)
})
