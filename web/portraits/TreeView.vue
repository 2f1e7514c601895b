<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NTree } from 'naive-ui/es/tree'
import type { TreeOption } from 'naive-ui/es/tree'
import { h, nextTick, onMounted, onUpdated, ref } from 'vue'
import type { VNodeChild } from 'vue'
import { readTree, readTreePath } from '#contract/portraits'
import type { PathNode, TreeNode } from '#contract/portraits'
import type { ById } from '#contract/registers'
import {
  assetChoices,
  call,
  CallProblem,
  onLiveChange,
  PickField,
  placeChoices,
  ProblemNote,
  problemFrom,
  usePortrait,
  useSession,
  useSoon,
  useUndo,
} from '#web/kit'
import type { Choice } from '#web/kit'
import type { Problem } from '#contract/kit'
import { KINDS } from '#contract/portraits'
import TreeBadge from './TreeBadge.vue'
import { recordOf } from './tree'

/**
 * Everything that is looked after, as it stands: sites, buildings, floors, spaces, in them assets down to their parts.
 * Opened by level, found by typing; a node is moved by dragging it onto another, or by its key (M) and a choice.
 */
interface Branch extends TreeOption {
  key: string
  node: TreeNode
  children?: Branch[]
}
const portrait = usePortrait()
const session = useSession()
const undo = useUndo()
const roots = ref<Branch[]>([])
const opened = ref<string[]>([])
const chosen = ref<string[]>([])
const problem = ref<Problem | null>(null)
const moving = ref<Branch | null>(null)
const root = ref<HTMLElement | null>(null)
const nodes = ref<HTMLElement | null>(null)
/** What scrolls is what has the keyboard: the component gives it to the frame around it. */
function mend(): void {
  const [frame, scrolled] = [nodes.value?.querySelector('.n-tree[tabindex], .n-tree [tabindex]'), nodes.value?.querySelector('.v-vl')]
  if (!frame || !scrolled || frame === scrolled) return
  frame.setAttribute('tabindex', '-1')
  scrolled.setAttribute('tabindex', '0')
  scrolled.setAttribute('role', 'tree')
  scrolled.setAttribute('aria-label', 'Places and assets')
}
onUpdated(mend)
const keyOf = (node: Pick<TreeNode, 'type' | 'id'>) => `${node.type}-${node.id}`
const mayMove = () => session.can('registers.edit')

const branchOf = (node: TreeNode): Branch => ({ key: keyOf(node), node, label: `${node.code} ${node.name}`, isLeaf: node.below === 0 })

async function readUnder(under?: TreeNode): Promise<Branch[]> {
  const rows: TreeNode[] = []
  let after: string | undefined
  do {
    const page = await call(readTree, under ? { under: under.type, id: under.id, after } : {})
    rows.push(...page.rows)
    after = page.next ?? undefined
  } while (after)
  return rows.map(branchOf)
}

async function load(option: TreeOption): Promise<void> {
  const branch = option as Branch
  try {
    branch.children = await readUnder(branch.node)
  } catch (error) {
    problem.value = problemFrom(error)
  }
}

async function begin(): Promise<void> {
  problem.value = null
  try {
    roots.value = await readUnder()
    if (roots.value.length === 1) await open(roots.value[0]!)
  } catch (error) {
    problem.value = problemFrom(error)
  }
}
onMounted(begin)

async function open(branch: Branch): Promise<void> {
  if (!branch.children && !branch.isLeaf) await load(branch)
  if (!opened.value.includes(branch.key)) opened.value = [...opened.value, branch.key]
}

const known = new Map<string, Branch>()
function walk(branches: Branch[]): void {
  for (const branch of branches) {
    known.set(branch.key, branch)
    walk(branch.children ?? [])
  }
}
function find(key: string): Branch | undefined {
  known.clear()
  walk(roots.value)
  return known.get(key)
}

/** Opens the way down to a place or an asset and stands on it. */
async function show(key: string | number | null): Promise<void> {
  if (typeof key !== 'string') return
  const [type, id] = key.split('-') as ['place' | 'asset', string]
  const { nodes } = await call(readTreePath, { under: type, id: Number(id) })
  for (const node of nodes.slice(0, -1)) {
    const branch = find(keyOf(node))
    if (branch) await open(branch)
  }
  chosen.value = [key]
  opened.value = opened.value.filter((one) => one !== key)
  await nextTick()
  const line = root.value?.querySelector<HTMLElement>('.n-tree-node--selected')
  line?.scrollIntoView({ block: 'center' })
  // Pressed, so that the arrow keys go on from here: the component has no other way to say it.
  line?.click()
  stand()
}
/** The keyboard is the tree’s again, on the line it was on. */
const stand = () => root.value?.querySelector<HTMLElement>('.v-vl')?.focus({ preventScroll: true })
function leave(): void {
  moving.value = null
  void nextTick(stand)
}

const MOST_OF_EACH = 8
async function findAny(text: string): Promise<Choice[]> {
  if (text.trim().length < 2) return []
  const [found, machines] = await Promise.all([placeChoices(text), assetChoices(text, null)])
  const both = [
    ...found.slice(0, MOST_OF_EACH).map((one) => ({ ...one, value: `place-${one.value}` })),
    ...machines.slice(0, MOST_OF_EACH).map((one) => ({ ...one, value: `asset-${one.value}` })),
  ]
  // Who types a whole code or tag means that one.
  const meant = ({ label }: Choice) => Number(label.toLowerCase().startsWith(`${text.trim().toLowerCase()} `))
  return both.sort((a, b) => meant(b) - meant(a))
}

/** What a node can be put into, and how that is said to the server. */
function changeFor(what: PathNode, into: PathNode): Record<string, unknown> | null {
  if (what.type === 'place') return into.type === 'place' ? { parentId: into.id } : null
  return into.type === 'asset' ? { parentId: into.id } : { parentId: null, placeId: into.id }
}

async function move(what: PathNode, into: PathNode): Promise<void> {
  moving.value = null
  const change = changeFor(what, into)
  if (!change) return undo.say(`${what.code} is a place: it stands in a place, not in an asset.`, undefined, true)
  const kind = KINDS[recordOf(what).register]
  try {
    const before = await call(kind.read, { id: what.id } as ById)
    const after = await call(kind.edit, { id: what.id, version: before.version, ...change })
    undo.say(`${what.code} stands in ${into.code} ${into.name} now, with all that is in it.`, async () => {
      const back = Object.fromEntries(Object.keys(change).map((name) => [name, before[name] ?? null]))
      await call(kind.edit, { id: what.id, version: after.version, ...back })
      await refresh()
    })
    await refresh()
    await show(keyOf(what))
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    undo.say(error.reasons[0]?.sentence ?? error.message, undefined, true)
  }
}

/** Reads again what is open. */
async function refresh(): Promise<void> {
  const fresh = await readUnder().catch(() => null)
  if (!fresh) return
  const wanted = new Set(opened.value)
  async function fill(branches: Branch[]): Promise<void> {
    await Promise.all(
      branches
        .filter((branch) => wanted.has(branch.key) && !branch.isLeaf)
        .map(async (branch) => {
          branch.children = await readUnder(branch.node)
          await fill(branch.children)
        }),
    )
  }
  await fill(fresh)
  roots.value = fresh
}
const soon = useSoon(() => void refresh(), 400)
onLiveChange((change) => {
  if (!change || change.register === 'places' || change.register === 'assets' || change.orderId) soon()
})

const drawn = ({ option }: { option: TreeOption }): VNodeChild => {
  const { node } = option as Branch
  return h('span', { class: 'node' }, [h('span', { class: 'mono code' }, node.code), ` ${node.name} `, h(TreeBadge, { node })])
}
/** The line the arrow keys stand on, which the component marks and does not say. */
function here(): Branch | undefined {
  const line = root.value?.querySelector('.n-tree-node--pending')?.id.replace(/^node-/, '')
  const key = line ?? chosen.value[0]
  return key ? find(key) : undefined
}
function keys(event: KeyboardEvent): void {
  if (event.ctrlKey || event.altKey || !(event.target instanceof HTMLElement) || event.target.tagName === 'INPUT') return
  const branch = here()
  if (branch && event.key.toLowerCase() === 'm' && mayMove()) {
    event.preventDefault()
    event.stopPropagation()
    moving.value = branch
    void nextTick(() => document.getElementById('tree-into')?.focus())
  }
  if (branch && event.key === 'Enter' && event.target.closest('.nodes')) portrait.open(recordOf(branch.node))
}
/** Tells readers of the screen which line the arrow keys stand on. */
function follow(event: KeyboardEvent): void {
  const branch = event.key.startsWith('Arrow') ? here() : undefined
  if (branch && event.target instanceof HTMLElement) event.target.setAttribute('aria-activedescendant', idOf(branch.key))
}
const idOf = (key: string) => `node-${key}`
const propsOf = ({ option }: { option: TreeOption }) => {
  const { key, node, isLeaf } = option as Branch
  return {
    id: idOf(key),
    role: 'treeitem',
    'aria-selected': chosen.value.includes(key),
    ...(isLeaf ? {} : { 'aria-expanded': opened.value.includes(key) }),
    ondblclick: () => portrait.open(recordOf(node)),
  }
}
async function put(key: string | number | null): Promise<void> {
  const what = moving.value
  if (typeof key !== 'string' || !what) return
  const [type, id] = key.split('-') as ['place' | 'asset', string]
  const { nodes } = await call(readTreePath, { under: type, id: Number(id) })
  await move(what.node, nodes.at(-1)!)
}
</script>

<template>
  <section ref="root" class="tree" aria-label="Tree of places and assets" @keydown.capture="keys" @keyup="follow">
    <div class="top">
      <PickField
        id="tree-find"
        class="find"
        label="Find in the tree"
        label-hidden
        placeholder="Find by code, tag or name"
        :value="null"
        :find="findAny"
        only-typed
        @pick="show"
      />
      <p class="soft">
        Enter opens the Portrait.<template v-if="mayMove()"> Drag a line onto another to move it, or press <kbd class="mono">M</kbd>.</template>
      </p>
    </div>
    <div v-if="moving" class="moving" role="group" aria-label="Move">
      <p>
        Move <span class="mono">{{ moving.node.code }}</span> {{ moving.node.name }}, with all that is in it, into
      </p>
      <PickField
        id="tree-into"
        class="find"
        label="Into"
        label-hidden
        placeholder="Code, tag or name of where it goes"
        :value="null"
        :find="findAny"
        only-typed
        @pick="put"
      />
      <NButton size="small" @click="leave">Leave it where it is</NButton>
    </div>
    <ProblemNote v-if="problem" :problem="problem" @retry="begin" />
    <!-- The component forgets its line when the keyboard goes elsewhere; it is to be there when it comes back. -->
    <div v-else ref="nodes" class="nodes" @focusout.capture.stop>
      <NTree
        v-model:expanded-keys="opened"
        v-model:selected-keys="chosen"
        block-line
        virtual-scroll
        expand-on-click
        :cancelable="false"
        :data="roots"
        :on-load="load"
        :draggable="mayMove()"
        :allow-drop="({ dropPosition }: { dropPosition: string }) => dropPosition === 'inside'"
        :render-label="drawn"
        :node-props="propsOf"
        @drop="({ node, dragNode }: { node: TreeOption; dragNode: TreeOption }) => void move((dragNode as Branch).node, (node as Branch).node)"
      >
        <template #empty><p class="soft">Nothing stands here yet.</p></template>
      </NTree>
    </div>
  </section>
</template>

<style scoped>
.tree {
  flex: 1;
  min-height: 320px;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.top,
.moving {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
}
.moving {
  padding: 8px 12px;
  background: var(--shoal-faint);
  border-radius: 6px;
}
.find {
  width: 320px;
}
.nodes {
  flex: 1;
  min-height: 0;
}
.nodes > .n-tree {
  height: 100%;
}
</style>
