<script setup lang="ts">
import 'leaflet/dist/leaflet.css'
import { useMutationObserver, useResizeObserver } from '@vueuse/core'
import { canvas, CRS, divIcon, DomEvent, featureGroup, imageOverlay, latLngBounds, map as newMap, marker as newMarker } from 'leaflet'
import type { FeatureGroup, ImageOverlay, LatLngBoundsExpression, LeafletMouseEvent, Map as LeafletMap, Marker } from 'leaflet'
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { boundsOf } from '#core/floorplans'
import type { Point } from '#core/floorplans'
import { sameOnPlan, workSays } from './drawn'
import type { Drawing, OnPlan } from './drawn'
import { dotLayer, fromMap, onMap, paletteOf, shapeLayer } from './layers'

/**
 * A floor as it is drawn, to scale: moved and zoomed by mouse, finger and key. What is chosen is marked; one asset may
 * be `moving`, by dragging or by the arrow keys, until it is kept or left.
 */
const props = defineProps<{
  label: string
  drawing: Drawing
  chosen: OnPlan | null
  picked?: ReadonlySet<number>
  moving?: { id: number; at: Point } | null
  still?: boolean
  /** A press anywhere puts the pin that is moved there. */
  pinning?: boolean
}>()
const emit = defineEmits<{ choose: [what: OnPlan]; move: [at: Point]; keep: []; leave: [] }>()
const frame = ref<HTMLElement | null>(null)
let map: LeafletMap | null = null
let layers: FeatureGroup | null = null
let under: ImageOverlay | null = null
let pin: Marker | null = null

/** How far an arrow key moves a pin, in metres. */
const STEP = 0.1
const LONG_STEP = 1

function bounds(): LatLngBoundsExpression | null {
  const { spaces, assets, picture } = props.drawing
  const points = [...spaces.flatMap(({ shape }) => shape?.flat() ?? []), ...assets.flatMap(({ at }) => (at ? [at] : []))]
  if (picture) points.push([picture.left, picture.bottom], [picture.left + picture.width, picture.bottom + picture.height])
  const box = boundsOf(points)
  return box && latLngBounds([box.south, box.west], [box.north, box.east])
}
function fit(): void {
  map?.fitBounds(
    bounds() ?? [
      [0, 0],
      [20, 30],
    ],
    { padding: [16, 16], animate: false },
  )
}
/** Brings what is chosen into sight, and nearer when it could not be read. */
function show(what: OnPlan): void {
  const { spaces, assets } = props.drawing
  const points =
    what.kind === 'space' ? (spaces.find(({ id }) => id === what.id)?.shape?.flat() ?? []) : assets.flatMap(({ id, at }) => (id === what.id && at ? [at] : []))
  const box = boundsOf(points)
  if (!map || !box) return
  const there = latLngBounds([box.south, box.west], [box.north, box.east])
  if (!map.getBounds().contains(there)) map.panTo(there.getCenter(), { animate: false })
}

const pixelsAMetre = () => (map ? 2 ** map.getZoom() : 1)
function draw(): void {
  if (!map || !frame.value) return
  const palette = paletteOf(frame.value)
  layers?.remove()
  layers = featureGroup().addTo(map)
  const { spaces, assets } = props.drawing
  for (const space of spaces) {
    if (!space.shape) continue
    const what: OnPlan = { kind: 'space', id: space.id }
    const late = space.lateOrders ? `${space.lateOrders} late` : ''
    const open = space.openOrders ? [`${space.openOrders} open`] : []
    shapeLayer(
      space.shape,
      { code: space.code, lines: [space.name, ...open], loud: late },
      palette,
      sameOnPlan(props.chosen, what) || !!props.picked?.has(space.id),
    )
      .on('click', (event) => press(event, what))
      .addTo(layers)
  }
  // What is chosen is drawn last, above the others.
  const isChosen = ({ id }: { id: number }) => sameOnPlan(props.chosen, { kind: 'asset', id })
  for (const asset of [...assets].sort((a, b) => Number(isChosen(a)) - Number(isChosen(b)))) {
    if (!asset.at || props.moving?.id === asset.id) continue
    const what: OnPlan = { kind: 'asset', id: asset.id }
    const says = { tag: asset.tag, open: asset.openOrders ?? 0, late: asset.lateOrders ?? 0 }
    dotLayer(asset.at, says, palette, sameOnPlan(props.chosen, what), pixelsAMetre)
      .on('click', (event) => press(event, what))
      .bindTooltip(() => tip(`${asset.tag} ${asset.name}`, workSays(asset)))
      .addTo(layers)
  }
}
function press(event: LeafletMouseEvent, what: OnPlan): void {
  DomEvent.stop(event)
  if (props.pinning) emit('move', fromMap(event.latlng))
  else emit('choose', what)
}
/** A text, never markup: names come from outside. */
function tip(...lines: string[]): HTMLElement {
  const box = document.createElement('span')
  box.textContent = lines.filter(Boolean).join(' · ')
  return box
}

function layUnder(): void {
  under?.remove()
  under = null
  const { picture } = props.drawing
  if (!map || !picture) return
  const corners = latLngBounds([picture.bottom, picture.left], [picture.bottom + picture.height, picture.left + picture.width])
  under = imageOverlay(picture.url, corners, { opacity: picture.strength / 100 }).addTo(map)
}

/** The pin that is being moved is an element of its own: it is dragged, and it is seen above everything. */
function placePin(): void {
  const { moving } = props
  if (!map || !moving) {
    pin?.remove()
    pin = null
    return
  }
  if (pin) return void pin.setLatLng(onMap(moving.at))
  pin = newMarker(onMap(moving.at), { draggable: true, keyboard: false, icon: divIcon({ className: 'moving-pin', iconSize: [22, 22] }) })
    .on('drag', () => emit('move', fromMap(pin!.getLatLng())))
    .on('dragend', () => emit('keep'))
    .addTo(map)
  map.getContainer().focus({ preventScroll: true })
}

/** While a pin is moved the arrow keys are its own; otherwise they move the plan. */
const ARROWS: Record<string, Point> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }
function keys(event: KeyboardEvent): void {
  if (!props.moving) return
  const step = ARROWS[event.key]
  if (step) {
    event.stopPropagation()
    event.preventDefault()
    const metres = event.shiftKey ? LONG_STEP : STEP
    const [east, north] = props.moving.at
    const at: Point = [east + step[0] * metres, north + step[1] * metres]
    emit('move', at)
    if (!map!.getBounds().contains(onMap(at))) map!.panTo(onMap(at), { animate: false })
  } else if (event.key === 'Enter' || event.key === 'Escape') {
    event.stopPropagation()
    event.preventDefault()
    if (event.key === 'Enter') emit('keep')
    else emit('leave')
  }
}

onMounted(() => {
  map = newMap(frame.value!, {
    crs: CRS.Simple,
    renderer: canvas({ padding: 0.6, tolerance: 4 }),
    zoomControl: false,
    attributionControl: false,
    minZoom: -4,
    maxZoom: 8,
    zoomSnap: 0.25,
    zoomDelta: 0.5,
    wheelPxPerZoomLevel: 120,
    zoomAnimation: false,
    fadeAnimation: false,
    inertia: !matchMedia('(prefers-reduced-motion: reduce)').matches,
    scrollWheelZoom: !props.still,
  })
  if (props.pinning) map.on('click', ({ latlng }) => emit('move', fromMap(latlng)))
  fit()
  layUnder()
  draw()
  placePin()
  if (props.chosen) show(props.chosen)
})
onBeforeUnmount(() => map?.remove())
useResizeObserver(frame, () => map?.invalidateSize({ animate: false }))
// Another theme has other colours.
useMutationObserver(document.documentElement, draw, { attributeFilter: ['data-theme'] })
watch(
  () => props.drawing,
  () => {
    layUnder()
    draw()
  },
)
watch(
  () => props.chosen,
  (now, before) => {
    if (sameOnPlan(now, before ?? null)) return
    draw()
    if (now) show(now)
  },
)
watch(() => props.picked, draw)
watch(
  () => props.moving,
  (now, before) => {
    if (now?.id !== before?.id) draw()
    placePin()
  },
)
defineExpose({
  fit,
  show,
  focus: () => frame.value?.focus(),
  zoom: (by: number) => map?.setZoom(map.getZoom() + by),
  centre: (): Point => (map ? fromMap(map.getCenter()) : [0, 0]),
})
</script>

<template>
  <div ref="frame" class="plan" role="application" aria-roledescription="Floor plan" :aria-label="label" @keydown.capture="keys" />
</template>

<style scoped>
.plan {
  width: 100%;
  height: 100%;
  min-height: 200px;
  background: var(--paper);
  /* Leaflet stacks its panes up to 700: they stay below what opens over the page. */
  isolation: isolate;
  font: inherit;
}
.plan:focus-visible {
  outline: 2px solid var(--tide);
  outline-offset: -2px;
}
.plan :deep(.moving-pin) {
  background: var(--sand);
  border: 3px solid var(--ink);
  border-radius: 50%;
  cursor: grab;
}
.plan :deep(.leaflet-tooltip) {
  background: var(--sheet);
  color: var(--ink);
  border-color: var(--line-strong);
}
</style>
