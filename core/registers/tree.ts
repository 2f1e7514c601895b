/** Where a node stands in a tree of records: `path` is "/1/7/31/", the ids from the root down to itself. */
export interface Node {
  id: number
  path: string
}

export const pathUnder = (above: string | null, id: number): string => `${above ?? '/'}${id}/`

export const isWithin = (node: Node, around: Node): boolean => node.path.startsWith(around.path)

/**
 * The paths of a branch after it was moved under another node, or to the root for null: the same nodes, the same
 * order within the branch. Null when the branch would stand within itself.
 */
export function movedPaths(branch: readonly Node[], top: Node, under: Node | null): Node[] | null {
  if (under && isWithin(under, top)) return null
  const path = pathUnder(under?.path ?? null, top.id)
  return branch.map((node) => ({ id: node.id, path: path + node.path.slice(top.path.length) }))
}
