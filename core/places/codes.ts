/** What a label of ours can stand for. */
export const CODE_KINDS = ['place', 'asset', 'part', 'equipment'] as const
export type CodeKind = (typeof CODE_KINDS)[number]

/** What was read from a label, or typed in its place. */
export interface ReadCode {
  /** Null where the code alone is known: typed, or of a label that is not ours. */
  kind: CodeKind | null
  code: string
  /** The site the label was printed for, by its code. */
  site: string | null
}

/**
 * The address a label leads to: the Counter of its site with place and asset filled in. Parts and equipment stand in it the
 * same way; whoever scans those with another camera comes to the Counter.
 * @param base the address of the application, without a slash at its end
 */
export function codeAddress(base: string, site: string, codes: Partial<Record<CodeKind, string>>): string {
  const address = new URL(`${base}/c/${encodeURIComponent(site)}`)
  for (const kind of CODE_KINDS) if (codes[kind]) address.searchParams.set(kind, codes[kind])
  return address.href
}

/** What a scanned or typed text means. A label of an asset names its place too: the asset is meant. */
export function readCode(text: string): ReadCode {
  const typed = { kind: null, code: text.trim(), site: null }
  if (!/^https?:\/\//i.test(typed.code) || !URL.canParse(typed.code)) return typed
  const { pathname, searchParams } = new URL(typed.code)
  const site = /^\/c\/([^/]+)$/.exec(pathname)?.[1]
  if (!site) return typed
  const kind = [...CODE_KINDS].reverse().find((one) => !!searchParams.get(one))
  return kind ? { kind, code: searchParams.get(kind)!, site: decodeURIComponent(site) } : typed
}
