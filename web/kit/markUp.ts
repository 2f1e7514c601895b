/** A picture being marked up: what was done, in order, so that each can be taken back. Coordinates in shares of the picture, 0 to 1. */
export type Mark = { kind: 'arrow' | 'ring' | 'blur' | 'crop'; from: Point; to: Point } | { kind: 'line'; points: Point[] } | { kind: 'turn' }
export interface Point {
  x: number
  y: number
}

const BUOY = '#B8431F'
const LONGEST = 2_000

/** Draws the picture with every mark on it, as it will be sent; turning and cutting change its shape. */
export function draw(picture: CanvasImageSource & { width: number; height: number }, marks: readonly Mark[]): HTMLCanvasElement {
  const scale = Math.min(1, LONGEST / Math.max(picture.width, picture.height))
  let canvas = sized(Math.round(picture.width * scale), Math.round(picture.height * scale))
  canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height)
  for (const mark of marks) canvas = apply(canvas, mark)
  return canvas
}

function sized(width: number, height: number): HTMLCanvasElement {
  const canvas = document.createElement('canvas')
  canvas.width = Math.max(1, width)
  canvas.height = Math.max(1, height)
  return canvas
}

function apply(canvas: HTMLCanvasElement, mark: Mark): HTMLCanvasElement {
  if (mark.kind === 'turn') return turned(canvas)
  if (mark.kind === 'crop') return cut(canvas, mark)
  const context = canvas.getContext('2d')!
  const width = Math.max(3, Math.round(Math.max(canvas.width, canvas.height) / 140))
  Object.assign(context, { strokeStyle: BUOY, lineWidth: width, lineCap: 'round', lineJoin: 'round' })
  const at = (point: Point) => [point.x * canvas.width, point.y * canvas.height] as const
  context.beginPath()
  if (mark.kind === 'line') mark.points.forEach((point, index) => (index ? context.lineTo(...at(point)) : context.moveTo(...at(point))))
  if (mark.kind === 'ring') {
    const [[x1, y1], [x2, y2]] = [at(mark.from), at(mark.to)]
    context.ellipse((x1 + x2) / 2, (y1 + y2) / 2, Math.abs(x2 - x1) / 2, Math.abs(y2 - y1) / 2, 0, 0, 2 * Math.PI)
  }
  if (mark.kind === 'arrow') {
    const [[x1, y1], [x2, y2]] = [at(mark.from), at(mark.to)]
    const angle = Math.atan2(y2 - y1, x2 - x1)
    context.moveTo(x1, y1)
    context.lineTo(x2, y2)
    for (const side of [-1, 1]) {
      context.moveTo(x2, y2)
      context.lineTo(x2 - 6 * width * Math.cos(angle + side * 0.5), y2 - 6 * width * Math.sin(angle + side * 0.5))
    }
  }
  if (mark.kind === 'blur') blur(canvas, context, mark)
  else context.stroke()
  return canvas
}

/** What is within is drawn again from a few coarse squares: a face cannot be made out, and nothing of it is left in the file. */
function blur(canvas: HTMLCanvasElement, context: CanvasRenderingContext2D, { from, to }: { from: Point; to: Point }): void {
  const box = boxOf(canvas, from, to)
  const small = sized(Math.min(6, box.width), Math.min(6, box.height))
  small.getContext('2d')!.drawImage(canvas, box.left, box.top, box.width, box.height, 0, 0, small.width, small.height)
  context.imageSmoothingEnabled = false
  context.drawImage(small, 0, 0, small.width, small.height, box.left, box.top, box.width, box.height)
  context.imageSmoothingEnabled = true
}

function cut(canvas: HTMLCanvasElement, { from, to }: { from: Point; to: Point }): HTMLCanvasElement {
  const box = boxOf(canvas, from, to)
  const smaller = sized(box.width, box.height)
  smaller.getContext('2d')!.drawImage(canvas, box.left, box.top, box.width, box.height, 0, 0, box.width, box.height)
  return smaller
}

function turned(canvas: HTMLCanvasElement): HTMLCanvasElement {
  const other = sized(canvas.height, canvas.width)
  const context = other.getContext('2d')!
  context.translate(other.width, 0)
  context.rotate(Math.PI / 2)
  context.drawImage(canvas, 0, 0)
  return other
}

function boxOf(canvas: HTMLCanvasElement, from: Point, to: Point) {
  const left = Math.round(Math.min(from.x, to.x) * canvas.width)
  const top = Math.round(Math.min(from.y, to.y) * canvas.height)
  return {
    left,
    top,
    width: Math.max(1, Math.round(Math.abs(to.x - from.x) * canvas.width)),
    height: Math.max(1, Math.round(Math.abs(to.y - from.y) * canvas.height)),
  }
}

/** Whether a mark is large enough to have been meant: a tap is not. */
export const isMeant = (mark: Mark) =>
  mark.kind === 'turn' || (mark.kind === 'line' ? mark.points.length > 2 : Math.abs(mark.to.x - mark.from.x) + Math.abs(mark.to.y - mark.from.y) > 0.03)
