import { House } from '../kit'
import { measureBundles } from './bundles'
import { measureCrowd } from './crowd'
import { measureLive } from './live'
import { measureQueue } from './queue'
import { measureStart } from './start'
import { printTable } from './table'
import type { Measure } from './table'

/** Everything the bench measures, each beside its limit. Ends with 1 when a limit is not kept. */
async function main(): Promise<void> {
  const measures: Measure[] = []
  const house = await House.open('bench')
  const server = await house.start()
  measures.push(...(await measureLive(server)))
  measures.push(...(await measureCrowd(server)))
  measures.push(...(await measureQueue(house, server)))
  await house.close()
  measures.push(...measureBundles())
  measures.push(await measureStart())
  printTable(measures)
  process.exit(measures.every((measure) => measure.kept) ? 0 : 1)
}

void main()
