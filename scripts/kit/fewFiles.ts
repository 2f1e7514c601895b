import path from 'node:path'
import vue from '@vitejs/plugin-vue'
import { build } from 'vite'
import type { UserConfig } from 'vite'

/** Stands for the page itself, which every screen is opened in. */
const ENTRY = 'entry'
/** Shared by so many screens: read with nearly the first of them anyway. */
const OFTEN = 16
/** And by so many: read with the second or third. */
const SOMETIMES = 4

/**
 * Into which file the modules go that several screens share. Left to itself the bundler makes one for each set of screens
 * that share something, a hundred small ones for the first of them, and a page waits for each. What the first screens need is
 * put into files of which each of them reads no more than it needs; what only others share is read together.
 *
 * The sets are known once unused code is left out, so the bundle is made once for them and again with the files.
 *
 * @param first modules from the root: screens that read no more than they need
 * @returns the name of the file of a module, null where it is left to the bundler
 */
export async function fewFiles(root: string, first: readonly string[], resolve: UserConfig['resolve']): Promise<(id: string) => string | null> {
  const made = await build({
    root,
    configFile: false,
    logLevel: 'silent',
    plugins: [vue()],
    resolve,
    build: { write: false, minify: false, cssMinify: false, target: 'es2022', modulePreload: false, reportCompressedSize: false },
  })
  const [{ output }] = (Array.isArray(made) ? made : [made]) as [{ output: Made[] }]
  const chunks = new Map(output.flatMap((one) => (one.type === 'chunk' ? [[one.fileName, one] as const] : [])))
  const usedBy = new Map<string, Set<string>>()
  for (const entry of chunks.values()) {
    if (!entry.isEntry && !entry.isDynamicEntry) continue
    for (const file of readWith(entry.fileName, chunks))
      for (const id of chunks.get(file)!.moduleIds) usedBy.set(id, (usedBy.get(id) ?? new Set()).add(entry.isEntry ? ENTRY : entry.facadeModuleId!))
  }
  const theirs = first.map((one) => path.join(root, one))
  return (id) => nameOf([...(usedBy.get(id) ?? [])], theirs)
}

interface Made {
  type: 'chunk' | 'asset'
  fileName: string
  isEntry: boolean
  isDynamicEntry: boolean
  facadeModuleId: string | null
  moduleIds: string[]
  imports: string[]
}

function readWith(fileName: string, chunks: ReadonlyMap<string, Made>): Set<string> {
  const all = new Set<string>()
  const take = (file: string): void => {
    if (all.has(file)) return
    all.add(file)
    chunks.get(file)?.imports.forEach(take)
  }
  take(fileName)
  return new Set([...all].filter((file) => chunks.has(file)))
}

function nameOf(screens: readonly string[], firstOnes: readonly string[]): string | null {
  if (screens.length < 2) return null
  if (screens.includes(ENTRY)) return 'base'
  const needed = firstOnes.flatMap((one, place) => (screens.some((screen) => screen.split('?')[0] === one) ? [place] : []))
  if (needed.length) return `first-${needed.join('-')}${screens.length >= SOMETIMES ? '' : '-seldom'}`
  return screens.length >= OFTEN ? 'often' : screens.length >= SOMETIMES ? 'sometimes' : null
}
