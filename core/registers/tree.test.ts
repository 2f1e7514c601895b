import fc from 'fast-check'
import { isWithin, movedPaths, pathUnder } from '#core/registers'
import type { Node } from '#core/registers'

/** A tree of n nodes: each but the first stands under one made before it. */
const trees = fc.array(fc.nat(), { minLength: 1, maxLength: 40 }).map((picks) => {
  const nodes: Node[] = [{ id: 1, path: '/1/' }]
  picks.forEach((pick, index) => nodes.push({ id: index + 2, path: pathUnder(nodes[pick % nodes.length]!.path, index + 2) }))
  return nodes
})
const parentOf = (path: string) => Number(path.split('/').filter(Boolean).at(-2) ?? 0)

test('no sequence of moves makes a circle or loses a node; what was below stays below', () => {
  fc.assert(
    fc.property(trees, fc.array(fc.tuple(fc.nat(), fc.nat()), { maxLength: 30 }), (start, moves) => {
      let nodes = start
      for (const [from, to] of moves) {
        const top = nodes[from % nodes.length]!
        const under = to % 7 === 0 ? null : nodes[to % nodes.length]!
        const branch = nodes.filter((node) => isWithin(node, top))
        const moved = movedPaths(branch, top, under)
        // Refused exactly where the branch would stand within itself.
        expect(moved === null).toBe(under !== null && branch.some((node) => node.id === under.id))
        if (!moved) continue
        const at = new Map(moved.map((node) => [node.id, node]))
        expect(moved.map((node) => node.id).sort()).toEqual(branch.map((node) => node.id).sort())
        const next = nodes.map((node) => at.get(node.id) ?? node)
        expect(parentOf(at.get(top.id)!.path)).toBe(under?.id ?? 0)
        for (const node of branch) if (node.id !== top.id) expect(parentOf(at.get(node.id)!.path)).toBe(parentOf(node.path))
        nodes = next
      }
      expect(nodes.map((node) => node.id)).toEqual(start.map((node) => node.id))
      const paths = new Map(nodes.map((node) => [node.id, node.path]))
      for (const { id, path } of nodes) {
        const ids = path.split('/').filter(Boolean).map(Number)
        expect(new Set(ids).size).toBe(ids.length)
        expect(ids.at(-1)).toBe(id)
        // Every path is that of its parent and itself.
        if (ids.length > 1) expect(path).toBe(pathUnder(paths.get(ids.at(-2)!)!, id))
      }
    }),
  )
})

test('a branch is moved whole, to the top as well', () => {
  const branch = [
    { id: 4, path: '/1/4/' },
    { id: 9, path: '/1/4/9/' },
  ]
  expect(movedPaths(branch, branch[0]!, { id: 7, path: '/2/7/' })).toEqual([
    { id: 4, path: '/2/7/4/' },
    { id: 9, path: '/2/7/4/9/' },
  ])
  expect(movedPaths(branch, branch[0]!, null)!.map((node) => node.path)).toEqual(['/4/', '/4/9/'])
  // "/1/40/" begins like "/1/4", and stands elsewhere.
  expect(isWithin({ id: 40, path: '/1/40/' }, branch[0]!)).toBe(false)
})
