import { eq, sql } from 'drizzle-orm'
import { learnedWays } from '#core/travel'
import type { WaySeen } from '#core/travel'
import type { Sweep } from '#server/kit'
import { orders, places, stints, travelTimes } from '../tables'

/** How far back travel is looked at, and how much may lie between leaving one job and setting out for the next. */
const MONTHS = 12
const MOST_GAP_MINUTES = 60
const MOST_MINUTES = 240
const MOST_ROWS = 50_000

/** What logged travel shows of the ways, learned anew; what somebody said of one stays and goes before it. */
export const learnWays: Sweep = async (tx, now) => {
  const since = new Date(now)
  since.setUTCMonth(since.getUTCMonth() - MONTHS)
  const [rows] = (await tx.execute(sql`
    select fromPath, toPath, minutes from (
      select lag(p.path) over mine as fromPath, lag(s.end_at) over mine as leftAt, p.path as toPath, s.minutes, s.kind, s.start_at as startAt
      from ${stints} s join ${orders} o on o.id = s.order_id join ${places} p on p.id = o.place_id
      where s.technician_id is not null and s.start_at > ${since}
      window mine as (partition by s.technician_id order by s.start_at, s.id)
    ) went
    where kind = 'travel' and fromPath is not null and fromPath <> toPath and minutes between 1 and ${MOST_MINUTES}
      and timestampdiff(minute, leftAt, startAt) between 0 and ${MOST_GAP_MINUTES}
    limit ${MOST_ROWS}`)) as unknown as [WaySeen[]]
  const learned = learnedWays(rows.map(({ fromPath, toPath, minutes }) => ({ fromPath, toPath, minutes: Number(minutes) })))
  await tx.delete(travelTimes).where(eq(travelTimes.source, 'stints'))
  if (learned.length) await tx.insert(travelTimes).values(learned.map((one) => ({ ...one, source: 'stints' as const, by: null, at: now })))
}
