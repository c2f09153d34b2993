/** Nearer to and further from a drawing: wheel, pinch and keys; a drag on the ground moves it while it is near. */
const MOST = 8
const STEP = 1.25
const PAN = 0.12

export class Zoom {
  factor = $state(1)
  /** Middle of what is seen, as a share of the sheet. */
  private u = $state(0.5)
  private v = $state(0.5)
  /** Fingers on the ground, by their number. */
  private touches: Record<number, { x: number; y: number }> = {}
  private apart = 0

  viewBox(width: number, height: number): string {
    const [w, h] = [width / this.factor, height / this.factor]
    return `${this.u * width - w / 2} ${this.v * height - h / 2} ${w} ${h}`
  }

  /** By a factor, about a place that stays where it is (shares of the picture on the page). */
  by(times: number, at = { x: 0.5, y: 0.5 }) {
    const next = Math.min(MOST, Math.max(1, this.factor * times))
    const keep = 1 / this.factor - 1 / next
    this.factor = next
    this.to(this.u + (at.x - 0.5) * keep, this.v + (at.y - 0.5) * keep)
  }

  whole() {
    this.factor = 1
    this.to(0.5, 0.5)
  }

  /** Never beyond the sheet's edge. */
  private to(u: number, v: number) {
    const half = 0.5 / this.factor
    this.u = Math.min(1 - half, Math.max(half, u))
    this.v = Math.min(1 - half, Math.max(half, v))
  }

  private move(du: number, dv: number) {
    this.to(this.u + du / this.factor, this.v + dv / this.factor)
  }

  key(event: KeyboardEvent): boolean {
    const pans: Record<string, [number, number]> = { ArrowLeft: [-PAN, 0], ArrowRight: [PAN, 0], ArrowUp: [0, -PAN], ArrowDown: [0, PAN] }
    if (event.key === '+' || event.key === '=') this.by(STEP)
    else if (event.key === '-') this.by(1 / STEP)
    else if (event.key === '0') this.whole()
    else if (event.altKey && pans[event.key]) this.move(...pans[event.key])
    else return false
    return true
  }

  wheel = (event: WheelEvent) => {
    event.preventDefault()
    this.by(Math.exp(-event.deltaY * (event.ctrlKey ? 0.01 : 0.0015)), placeOf(event))
  }

  down = (event: PointerEvent) => {
    if (event.target !== event.currentTarget) return
    this.touches[event.pointerId] = placeOf(event)
    this.apart = this.spread()
  }

  moved = (event: PointerEvent) => {
    const was = this.touches[event.pointerId]
    if (!was) return
    const now = placeOf(event)
    this.touches[event.pointerId] = now
    if (Object.keys(this.touches).length === 1) return this.move(was.x - now.x, was.y - now.y)
    const spread = this.spread()
    if (this.apart > 0) this.by(spread / this.apart, now)
    this.apart = spread
  }

  up = (event: PointerEvent) => {
    delete this.touches[event.pointerId]
    this.apart = this.spread()
  }

  private spread(): number {
    const [a, b] = Object.values(this.touches)
    return b ? Math.hypot(a.x - b.x, a.y - b.y) : 0
  }
}

function placeOf(event: MouseEvent) {
  const box = (event.currentTarget as Element).getBoundingClientRect()
  return { x: (event.clientX - box.left) / box.width, y: (event.clientY - box.top) / box.height }
}
