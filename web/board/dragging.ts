import { useEventListener } from '@vueuse/core'
import interact from 'interactjs'
import { onMounted, onUnmounted, watch } from 'vue'
import type { Ref } from 'vue'
import type { Board, WaitingOrder } from '#contract/board'
import { BOARD_STEP_MINUTES, instantAt, placeOf } from '#core/board'
import type { BoardFrame } from '#core/board'
import type { Holding } from './holding'

interface Pointer {
  clientX: number
  clientY: number
}
/** What the library says of something it drags. */
interface Drag extends Pointer {
  target: HTMLElement
  interaction: { stop: () => void }
}
interface Under {
  row: string
  share: number
}

/** How long a finger rests on a visit before it takes it: until then it scrolls the rows. Common practice, no source. */
const REST_MS = 350
/** How far it may stray meanwhile: no finger rests on a pixel. */
const STRAYS_PX = 8

/** Visits and waiting orders are dragged over the rows of the Board, and visits made longer or shorter at their ends. */
export function useDragging(root: Ref<HTMLElement | null>, holding: Holding, board: () => Board, frame: () => BoardFrame) {
  let grabbed = 0
  let dragging: Drag['interaction'] | null = null
  const at = (share: number) => instantAt(share, frame(), BOARD_STEP_MINUTES)

  /** The row under the pointer, and how far along it that is. */
  function under({ clientX, clientY }: Pointer): Under | null {
    const row = document.elementsFromPoint(clientX, clientY).find((one): one is HTMLElement => one instanceof HTMLElement && one.dataset.row !== undefined)
    const track = row?.querySelector<HTMLElement>('.track')
    if (!row || !track) return null
    const { left, width } = track.getBoundingClientRect()
    return { row: row.dataset.row!, share: (clientX - left) / width }
  }
  function carry(pointer: Pointer): void {
    const [held, found] = [holding.held.value, under(pointer)]
    if (!held || !found) return
    const length = held.at.until.getTime() - held.at.from.getTime()
    const from = at(found.share - grabbed)
    holding.place(found.row, { from, until: new Date(from.getTime() + length) })
  }
  /** Dropped on a row it is put there; anywhere else it goes back to where it was. */
  function put(pointer: Pointer): void {
    dragging = null
    if (under(pointer)) void holding.drop()
    else holding.leave()
  }

  function takeVisit(element: HTMLElement, pointer: Pointer): void {
    const row = element.closest<HTMLElement>('[data-row]')!.dataset.row!
    const all = [...board().people, ...board().vendors].flatMap(({ visits }) => visits)
    const visit = all.find(({ id }) => id === Number(element.dataset.visit))
    if (!visit) return
    holding.takeVisit(visit, row)
    grabbed = (under(pointer)?.share ?? 0) - placeOf(new Date(visit.from), frame())
  }
  function takeOrder(element: HTMLElement): void {
    const order: WaitingOrder | undefined = board().waiting.find(({ id }) => id === Number(element.dataset.order))
    if (order) holding.takeOrder(order)
    grabbed = 0
  }

  const visits = interact('.visit.planned')
  const started: { unset: () => void }[] = [visits]
  // Known before the library asks for it.
  useEventListener(
    window,
    'pointerdown',
    ({ pointerType }) => {
      const finger = pointerType === 'touch'
      const hold = finger ? REST_MS : 0
      interact.pointerMoveTolerance(finger ? STRAYS_PX : 1)
      visits.draggable({ hold }).resizable({ hold })
    },
    { capture: true },
  )
  // What a finger has taken goes with it, and neither the rows nor a menu.
  useEventListener(root, ['touchmove', 'contextmenu'], (event: Event) => holding.held.value && event.preventDefault(), { passive: false })
  // Near an edge of the rows those beyond it come into sight.
  onMounted(() => started.push(draggables({ autoScroll: { container: root.value!, margin: 36 }, cursorChecker: () => 'grab' })))
  const draggables = (options: object) => {
    visits
      .draggable({
        ...options,
        listeners: {
          start: (event: Drag) => {
            dragging = event.interaction
            takeVisit(event.target, event)
          },
          move: carry,
          end: put,
        },
      })
      .resizable({
        edges: { left: true, right: true, top: false, bottom: false },
        margin: 5,
        listeners: {
          start: (event: Drag) => takeVisit(event.target, event),
          move: (event: Pointer & { edges: { left: boolean } }) => {
            const [held, found] = [holding.held.value, under(event)]
            if (!held || !found) return
            const end = at(found.share)
            const resized = event.edges.left ? { from: end, until: held.at.until } : { from: held.at.from, until: end }
            if (resized.until.getTime() - resized.from.getTime() >= BOARD_STEP_MINUTES * 60_000) holding.place(held.row, resized)
          },
          end: () => void holding.drop(),
        },
      })
    return interact('.waits').draggable({
      ...options,
      ignoreFrom: 'a',
      listeners: {
        start: (event: Drag) => {
          dragging = event.interaction
          takeOrder(event.target)
        },
        move: carry,
        end: put,
      },
    })
  }
  onUnmounted(() => started.forEach((one) => one.unset()))
  watch(holding.held, (held) => {
    // While something is held, what is under the pointer is not marked as text.
    root.value?.classList.toggle('holding', held !== null)
    // Put back by Escape, it is not dragged on, and the rows stand still.
    if (!held) dragging?.stop()
    if (!held) dragging = null
  })
}
