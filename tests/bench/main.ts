import { House } from '../kit'
import type { Running } from '../kit'
import { measureBoard } from './board'
import { measureBundles } from './bundles'
import { measureCobie } from './cobie'
import { measureCrowd } from './crowd'
import { measureDayPlans } from './dayplans'
import { measureFloorplans } from './floorplans'
import { measureLists } from './lists'
import { measureLive } from './live'
import { measureMailBurst } from './mailBurst'
import { measureMethods } from './methods'
import { measurePlanning } from './planning'
import { measureQueue } from './queue'
import { measureRegisters } from './registers'
import { measureRounds } from './rounds'
import { measureScreens } from './screens'
import { measureSearch } from './search'
import { measureStart } from './start'
import { measureSubmissions } from './submissions'
import { measureSuggestions } from './suggestions'
import { printTable } from './table'
import type { Measure } from './table'
import { measureTyping } from './typing'

type Take = (house: House, server: Running) => Promise<Measure[]> | Measure[]

/** What is measured, by name, each group in an installation of its own. */
const GROUPS: { name: string; mail?: boolean; takes: Record<string, Take> }[] = [
  {
    name: 'bench',
    takes: { live: (_, server) => measureLive(server), crowd: (_, server) => measureCrowd(server), queue: measureQueue, typing: measureTyping },
  },
  { name: 'intakebench', mail: true, takes: { submissions: measureSubmissions, mail: (house) => measureMailBurst(house), search: measureSearch } },
  { name: 'suggestionsbench', takes: { suggestions: measureSuggestions } },
  { name: 'boardbench', takes: { board: measureBoard } },
  { name: 'dayplansbench', takes: { dayplans: measureDayPlans } },
  { name: 'listsbench', takes: { lists: measureLists } },
  { name: 'screensbench', takes: { screens: measureScreens } },
  { name: 'cobiebench', takes: { cobie: measureCobie } },
  { name: 'plansbench', takes: { floorplans: measureFloorplans } },
  { name: 'methodsbench', takes: { methods: measureMethods } },
  { name: 'planningbench', takes: { planning: measurePlanning } },
  { name: 'registersbench', takes: { registers: measureRegisters } },
  { name: 'roundsbench', takes: { rounds: measureRounds } },
]
const ALONE: Record<string, () => Promise<Measure[]> | Measure[]> = { bundles: measureBundles, start: async () => [await measureStart()] }

/**
 * Measures everything, or what is named, and says each as it comes: one that breaks off loses none of the
 * others. Ends with 1 when a limit is not kept.
 */
async function main(): Promise<void> {
  const measures: Measure[] = []
  const only = process.argv.slice(2)
  const wanted = (name: string) => !only.length || only.includes(name)
  const take = async (name: string, run: () => Promise<Measure[]> | Measure[]) => {
    const began = Date.now()
    const taken = await Promise.resolve()
      .then(run)
      .catch((error: unknown): Measure[] => [
        { what: name, measured: error instanceof Error ? error.message.slice(0, 200) : 'broke off', limit: 'none', kept: false },
      ])
    console.log(`\n${name}, ${((Date.now() - began) / 1000).toFixed(0)} s`)
    printTable(taken)
    measures.push(...taken)
  }
  for (const { name, mail, takes } of GROUPS) {
    const asked = Object.entries(takes).filter(([one]) => wanted(one))
    if (!asked.length) continue
    const house = await House.open(name, { mail })
    const server = await house.start()
    for (const [one, run] of asked) await take(one, async () => run(house, server))
    await house.close()
  }
  for (const [name, run] of Object.entries(ALONE)) if (wanted(name)) await take(name, run)
  console.log('\nAll of it')
  printTable(measures)
  process.exit(measures.every((measure) => measure.kept) ? 0 : 1)
}

void main()
