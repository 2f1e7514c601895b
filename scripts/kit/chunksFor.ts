import type { Plugin } from 'vite'

/**
 * A Vite plugin that notes which built files a few screens need, with all they load later: what a phone keeps to open
 * them without a network.
 *
 * @param modules files from the root; a chunk made of one of them is needed
 * @returns `needed` is filled once the bundle is made
 */
export function chunksFor(modules: readonly string[]): { plugin: Plugin; needed: ReadonlySet<string> } {
  const needed = new Set<string>()
  const plugin: Plugin = {
    name: 'evrix-chunks-for',
    generateBundle(_options, bundle) {
      const chunks = Object.values(bundle).filter((one) => one.type === 'chunk')
      const add = (fileName: string, later: boolean): void => {
        const chunk = bundle[fileName]
        if (chunk?.type !== 'chunk' || needed.has(fileName)) return
        needed.add(fileName)
        for (const file of [...(chunk.viteMetadata?.importedCss ?? []), ...(chunk.viteMetadata?.importedAssets ?? [])]) needed.add(file)
        for (const one of chunk.imports) add(one, later)
        if (later) for (const one of chunk.dynamicImports) add(one, later)
      }
      // The entry’s own later parts are all screens there are.
      for (const entry of chunks.filter(({ isEntry }) => isEntry)) add(entry.fileName, false)
      const isWanted = (id: string) => modules.some((module) => id.split('?')[0]!.endsWith(`/${module}`))
      for (const { fileName, moduleIds } of chunks) if (moduleIds.some(isWanted)) add(fileName, true)
    },
  }
  return { plugin, needed }
}
