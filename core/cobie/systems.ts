import type { CobieStanding } from './known'
import { folded, listed } from './lines'
import type { Line } from './lines'
import { tagOf } from './sheets'

interface ReadSystems {
  /** Tag of what a component is part of, by its own tag in lower case. */
  partOf: Map<string, string>
  /** Names of the other systems a component is in, by its tag in lower case. */
  others: Map<string, string[]>
  told: { line: Line; name: string; standing: CobieStanding; sentences: string[] }[]
}

/**
 * A system that is called as one of its components is what the others of it are part of: one thing is part of one other,
 * and of nothing that is part of it. Any other system is a fact of each of its components.
 * @param keeps whether such facts are kept
 */
export function readSystems(lines: Line[], components: Line[], keeps: boolean): ReadSystems {
  const tags = new Map<string, string>()
  for (const line of components) for (const called of [line.cell('Name'), tagOf(line)]) if (called) tags.set(folded(called), tagOf(line))
  const read: ReadSystems = { partOf: new Map(), others: new Map(), told: [] }
  const above = (tag: string, looked: string): boolean => {
    for (let at = read.partOf.get(folded(tag)); at; at = read.partOf.get(folded(at))) if (folded(at) === folded(looked)) return true
    return false
  }
  for (const line of lines) {
    const name = line.cell('Name')
    const whole = tags.get(folded(name))
    const sentences: string[] = []
    for (const called of listed(line.cell('ComponentNames'))) {
      const tag = tags.get(folded(called))
      const other = tag && read.partOf.get(folded(tag))
      if (!tag) sentences.push(`There is no component called “${called}” in the workbook.`)
      else if (!whole) read.others.set(folded(tag), [...(read.others.get(folded(tag)) ?? []), name])
      else if (folded(tag) === folded(whole)) continue
      else if (other && folded(other) !== folded(whole)) sentences.push(`${tag} is part of ${other} already.`)
      else if (above(whole, tag)) sentences.push(`${whole} is part of ${tag}: it cannot be the other way round as well.`)
      else read.partOf.set(folded(tag), whole)
    }
    if (!name) read.told.push({ line, name, standing: 'bad', sentences: ['It has no name.'] })
    else if (sentences.length) read.told.push({ line, name, standing: 'bad', sentences })
    else if (whole || keeps) read.told.push({ line, name, standing: 'same', sentences: [] })
    else read.told.push({ line, name, standing: 'left', sentences: ['Systems that are no component are kept as own fields, when that is wished.'] })
  }
  return read
}
