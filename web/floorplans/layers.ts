import { CircleMarker, Point as Pixel, Polygon } from 'leaflet'
import type { Bounds, CircleMarkerOptions, LatLngTuple, PathOptions } from 'leaflet'
import { nameSpot } from '#core/floorplans'
import type { Point, Shape } from '#core/floorplans'

/** Metres east and north are longitude and latitude on a plane. */
export const onMap = ([east, north]: Point): LatLngTuple => [north, east]
export const fromMap = ({ lat, lng }: { lat: number; lng: number }): Point => [lng, lat]

/** What is written into a shape: the code, then what is told of it; each line only where it has room. */
export interface Wording {
  code: string
  lines: string[]
  /** Stands out: something is late. */
  loud: string
}

/** The colours and letters of the page, read where the drawing stands. */
export interface Palette {
  ink: string
  soft: string
  loud: string
  sheet: string
  shoal: string
  faint: string
  line: string
  tide: string
  mono: string
  text: string
}
export function paletteOf(element: Element): Palette {
  const style = getComputedStyle(element)
  const read = (name: string) => style.getPropertyValue(name).trim()
  return {
    ink: read('--ink'),
    soft: read('--ink-soft'),
    loud: read('--buoy'),
    sheet: read('--sheet'),
    shoal: read('--shoal'),
    faint: read('--shoal-faint'),
    line: read('--line-strong'),
    tide: read('--tide'),
    mono: read('--mono'),
    text: read('--text'),
  }
}

/** The parts of a canvas layer that Leaflet keeps to itself. */
interface OnCanvas {
  _renderer: { _ctx?: CanvasRenderingContext2D; _drawing?: boolean }
  _map?: { latLngToLayerPoint: (at: LatLngTuple) => Pixel }
}

const LINE = 15

/** A space with its words inside it. */
class NamedShape extends Polygon {
  private spot: LatLngTuple
  constructor(
    shape: Shape,
    options: PathOptions,
    private readonly wording: Wording,
    private readonly palette: Palette,
  ) {
    super(
      shape.map((ring) => ring.map(onMap)),
      options,
    )
    this.spot = onMap(nameSpot(shape))
  }
  _updatePath(): void {
    ;(Polygon.prototype as unknown as { _updatePath: () => void })._updatePath.call(this)
    const { _renderer, _map } = this as unknown as OnCanvas
    const ctx = _renderer._ctx
    const bounds = (this as unknown as { _pxBounds?: Bounds })._pxBounds
    if (!ctx || !_map || !bounds || !_renderer._drawing) return
    const { x: wide, y: high } = bounds.getSize()
    const at = _map.latLngToLayerPoint(this.spot)
    const { code, lines, loud } = this.wording
    const all = [
      { text: code, font: `600 12px ${this.palette.mono}`, colour: this.palette.ink },
      ...lines.map((text) => ({ text, font: `12px ${this.palette.text}`, colour: this.palette.soft })),
      ...(loud ? [{ text: loud, font: `700 12px ${this.palette.text}`, colour: this.palette.loud }] : []),
    ]
    ctx.save()
    ctx.textAlign = 'center'
    ctx.textBaseline = 'middle'
    const fitting = all.filter(({ text, font }) => {
      ctx.font = font
      return ctx.measureText(text).width < wide - 6
    })
    const room = Math.floor((high - 4) / LINE)
    // What is late is said before the name where there is no room for both.
    const shown =
      fitting.length > room
        ? [...fitting.filter(({ colour }) => colour !== this.palette.soft), ...fitting.filter(({ colour }) => colour === this.palette.soft)].slice(0, room)
        : fitting
    shown.forEach(({ text, font, colour }, index) => {
      ctx.font = font
      ctx.fillStyle = colour
      ctx.fillText(text, at.x, at.y + (index - (shown.length - 1) / 2) * LINE)
    })
    ctx.restore()
  }
}

export function shapeLayer(shape: Shape, wording: Wording, palette: Palette, chosen: boolean): Polygon {
  return new NamedShape(
    shape,
    {
      color: chosen ? palette.tide : palette.line,
      weight: chosen ? 3 : 1,
      fillColor: chosen ? palette.shoal : wording.lines.length > 1 || wording.loud ? palette.faint : palette.sheet,
      fillOpacity: chosen ? 0.85 : 0.7,
      bubblingMouseEvents: false,
    },
    wording,
    palette,
  )
}

export const TAGS_FROM_PIXELS_A_METRE = 22

/** An asset as a dot, with its tag beside it where the drawing is large enough. */
class TaggedDot extends CircleMarker {
  constructor(
    at: Point,
    options: CircleMarkerOptions,
    private readonly tag: string,
    private readonly palette: Palette,
    private readonly pixelsAMetre: () => number,
  ) {
    super(onMap(at), options)
  }
  private tagWidth(): number {
    return this.pixelsAMetre() >= TAGS_FROM_PIXELS_A_METRE ? this.tag.length * 7 + 6 : 0
  }
  _updateBounds(): void {
    ;(CircleMarker.prototype as unknown as { _updateBounds: () => void })._updateBounds.call(this)
    const bounds = (this as unknown as { _pxBounds: Bounds })._pxBounds
    if (bounds.max) bounds.extend(new Pixel(bounds.max.x + this.tagWidth(), bounds.max.y))
  }
  _updatePath(): void {
    ;(CircleMarker.prototype as unknown as { _updatePath: () => void })._updatePath.call(this)
    const { _renderer } = this as unknown as OnCanvas
    const ctx = _renderer._ctx
    if (!ctx || !_renderer._drawing || !this.tagWidth()) return
    const at = (this as unknown as { _point: Pixel })._point
    ctx.save()
    ctx.font = `11px ${this.palette.mono}`
    ctx.textBaseline = 'middle'
    ctx.lineWidth = 3
    ctx.strokeStyle = this.palette.sheet
    ctx.strokeText(this.tag, at.x + this.getRadius() + 3, at.y)
    ctx.fillStyle = this.palette.ink
    ctx.fillText(this.tag, at.x + this.getRadius() + 3, at.y)
    ctx.restore()
  }
}

export function dotLayer(
  at: Point,
  { tag, open, late }: { tag: string; open: number; late: number },
  palette: Palette,
  chosen: boolean,
  pixelsAMetre: () => number,
): CircleMarker {
  return new TaggedDot(
    at,
    {
      // Open work is a larger dot, late work one with a thick rim: told without colour too.
      radius: chosen ? 8 : open ? 6 : 4,
      color: late ? palette.loud : chosen ? palette.ink : palette.tide,
      weight: late ? 3 : chosen ? 2.5 : 1,
      fillColor: open || chosen ? palette.tide : palette.sheet,
      fillOpacity: 1,
      bubblingMouseEvents: false,
    },
    tag,
    palette,
    pixelsAMetre,
  )
}
