import { DateTime } from 'luxon'
import { frequencyOf, ruleOf, ruleSays } from '#core/preventive'
import type { CobieKnown, CobieStanding, CobieWrites } from './known'
import { folded, same } from './lines'
import type { Line } from './lines'
import { dayIn, durationIn } from './terms'

interface ReadJob {
  name: string
  standing: CobieStanding
  sentences: string[]
  writes: CobieWrites['jobs']
}

/**
 * A job that comes round is a preventive plan for each component it is for: the one its TaskNumber names, or all of its
 * type. @param components tag of a component that can be taken, and tags of all of a type
 */
export function readJob(
  line: Line,
  known: Pick<CobieKnown, 'jobs' | 'today'>,
  components: { named: (tag: string) => string | undefined; ofType: (type: string) => string[] | undefined },
): ReadJob {
  const name = line.cell('Name').slice(0, 120)
  const as = (standing: CobieStanding, ...sentences: string[]): ReadJob => ({ name, standing, sentences, writes: [] })
  if (!name) return as('bad', 'It has no name.')
  const task = line.cell('TaskNumber')
  // A plan that is there may be of something that this workbook does not tell of.
  const one = components.named(task) ?? known.jobs.find((job) => same(job.name, name) && same(job.tag, task))?.tag
  const tags = one ? [one] : components.ofType(line.cell('TypeName'))
  if (!tags?.length)
    return as('bad', `There is no component it is for: neither its TaskNumber nor its TypeName, “${line.cell('TypeName')}”, leads to one that can be taken.`)
  const [every, unit] = [line.cell('Frequency'), line.cell('FrequencyUnit')]
  const held = (tag: string) => known.jobs.find((job) => same(job.name, name) && same(job.tag, tag))
  // A rule that a workbook cannot tell comes out without a frequency, and stays as it is.
  if (!every) return tags.every(held) ? as('same') : as('left', 'It does not say how often. A job that is done once is logged as an order.')
  const comes = /^\d{1,3}$/.test(every) && Number(every) > 0 ? durationIn(Number(every), unit) : null
  if (!comes) return as('bad', `It comes every ${every} ${unit || '(no unit)'}: say a whole number of days, weeks, months or years.`)
  const startsOn = startIn(line, known.today)
  if (!startsOn) return as('bad', `Start is no day: ${line.cell('Start')}.`)
  const rule = ruleOf(comes.length, comes.unit)
  const writes: CobieWrites['jobs'] = []
  const changed: string[] = []
  for (const tag of tags) {
    const there = held(tag)
    if (!there) writes.push({ id: null, name, tag, rule, startsOn })
    else if (folded(ruleSays(there.rule)) !== folded(ruleSays(rule)) || !frequencyOf(there.rule)) {
      writes.push({ id: there.id, name, tag, rule, startsOn: there.startsOn })
      changed.push(`${tag}: ${ruleSays(there.rule)} becomes ${ruleSays(rule)}.`)
    }
  }
  const fresh = writes.filter(({ id }) => id === null).map(({ tag }) => tag)
  const sentences = [...(fresh.length ? [`A plan for ${fresh.join(', ')}, ${ruleSays(rule)} from ${startsOn}.`] : []), ...changed]
  return { name, standing: fresh.length ? 'new' : changed.length ? 'changed' : 'same', sentences, writes }
}

/** A day; so many days, weeks, months or years from today; today where nothing is said. */
function startIn(line: Line, today: string): string | null {
  const cell = line.cell('Start')
  if (!cell) return today
  if (!/^\d{1,4}$/.test(cell)) return dayIn(cell)
  const after = durationIn(Number(cell), line.cell('TaskStartUnit') || 'day')
  return (
    after &&
    DateTime.fromISO(today)
      .plus({ [after.unit]: after.length })
      .toISODate()
  )
}
