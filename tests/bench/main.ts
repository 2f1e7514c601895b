import { House } from '../kit'
import { measureBundles } from './bundles'
import { measureCrowd } from './crowd'
import { measureLists } from './lists'
import { measureLive } from './live'
import { measureMailBurst } from './mailBurst'
import { measureQueue } from './queue'
import { measureSearch } from './search'
import { measureStart } from './start'
import { measureSubmissions } from './submissions'
import { measureSuggestions } from './suggestions'
import { printTable } from './table'
import type { Measure } from './table'

/** Everything the bench measures, each beside its limit. Ends with 1 when a limit is not kept. */
async function main(): Promise<void> {
  const measures: Measure[] = []
  const only = process.argv.slice(2)
  const wanted = (name: string) => !only.length || only.includes(name)
  if (['live', 'crowd', 'queue'].some(wanted)) {
    const house = await House.open('bench')
    const server = await house.start()
    if (wanted('live')) measures.push(...(await measureLive(server)))
    if (wanted('crowd')) measures.push(...(await measureCrowd(server)))
    if (wanted('queue')) measures.push(...(await measureQueue(house, server)))
    await house.close()
  }
  if (['search', 'submissions', 'mail'].some(wanted)) {
    const house = await House.open('intakebench', { mail: true })
    const server = await house.start()
    if (wanted('submissions')) measures.push(...(await measureSubmissions(house, server)))
    if (wanted('mail')) measures.push(...(await measureMailBurst(house)))
    if (wanted('search')) measures.push(...(await measureSearch(house, server)))
    await house.close()
  }
  if (wanted('suggestions')) {
    const house = await House.open('suggestionsbench')
    measures.push(...(await measureSuggestions(house, await house.start())))
    await house.close()
  }
  if (wanted('lists')) {
    const house = await House.open('listsbench')
    measures.push(...(await measureLists(house, await house.start())))
    await house.close()
  }
  if (wanted('bundles')) measures.push(...measureBundles())
  if (wanted('start')) measures.push(await measureStart())
  printTable(measures)
  process.exit(measures.every((measure) => measure.kept) ? 0 : 1)
}

void main()
