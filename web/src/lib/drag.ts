/** Dragging on a drawing with pointer or keys, in metres. */

export type Move = { dx: number; dy: number }

type Options = {
  /** Pixels of the drawing per metre. */
  scale: () => number
  start: () => void
  /** Metres to the right and up of where the drag began. */
  move: (by: Move) => void
  end: () => void
  select?: () => void
  /** Taken hold of: arrow keys move it. While it is not they go from handle to handle. Left out: always. */
  held?: () => boolean
}

const STEP = 0.01
const BIG_STEP = 0.1

/** To the next handle of the drawing, which is the one stop for Tab then. */
function goOn(node: SVGElement, by: 1 | -1) {
  const handles = [...(node.closest('[data-handles]')?.querySelectorAll<SVGElement>('.handle') ?? [])]
  const next = handles[(handles.indexOf(node) + by + handles.length) % handles.length]
  next?.focus({ preventScroll: true })
}

/** Svelte action: of all handles inside only the one that was last gone to is a stop for Tab. */
export function oneStop(node: Element) {
  const stop = (at: Element | null) => {
    for (const handle of node.querySelectorAll('.handle')) handle.setAttribute('tabindex', handle === at ? '0' : '-1')
  }
  const renew = () => stop(node.querySelector('.handle[tabindex="0"]') ?? node.querySelector('.handle'))
  const entered = (event: Event) => (event.target as Element).classList.contains('handle') && stop(event.target as Element)
  const watcher = new MutationObserver(renew)
  node.addEventListener('focusin', entered)
  watcher.observe(node, { childList: true, subtree: true })
  renew()
  return {
    destroy() {
      watcher.disconnect()
      node.removeEventListener('focusin', entered)
    },
  }
}

/** Svelte action: makes an SVG element draggable; arrow keys move 1 cm, with Shift 10 cm. */
export function draggable(node: SVGElement, initial: Options) {
  let options = initial
  let from: DOMPoint | null = null
  let keys: Move | null = null

  const place = (event: PointerEvent) => {
    const svg = node instanceof SVGSVGElement ? node : node.ownerSVGElement!
    return new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM()!.inverse())
  }
  function down(event: PointerEvent) {
    if (event.button !== 0) return
    event.stopPropagation()
    node.setPointerCapture(event.pointerId)
    ;(node as SVGElement & { focus(o: FocusOptions): void }).focus({ preventScroll: true })
    from = place(event)
    options.select?.()
    options.start()
  }
  function moved(event: PointerEvent) {
    if (!from) return
    const now = place(event)
    options.move({ dx: (now.x - from.x) / options.scale(), dy: (from.y - now.y) / options.scale() })
  }
  function up() {
    if (!from) return
    from = null
    options.end()
  }
  function key(event: KeyboardEvent) {
    const step = event.shiftKey ? BIG_STEP : STEP
    const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] }[event.key]
    if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault()
      options.select?.()
    }
    if (!by) return
    event.preventDefault()
    event.stopPropagation()
    if (options.held && !options.held()) return void goOn(node, by[0] > 0 || by[1] < 0 ? 1 : -1)
    if (!keys) options.start()
    keys = { dx: (keys?.dx ?? 0) + by[0], dy: (keys?.dy ?? 0) + by[1] }
    options.move(keys)
  }
  function released(event: KeyboardEvent) {
    if (!keys || !event.key.startsWith('Arrow')) return
    keys = null
    options.end()
  }
  node.addEventListener('pointerdown', down)
  node.addEventListener('pointermove', moved)
  node.addEventListener('pointerup', up)
  node.addEventListener('pointercancel', up)
  node.addEventListener('keydown', key)
  node.addEventListener('keyup', released)
  return {
    update(next: Options) {
      options = next
    },
    destroy() {
      node.removeEventListener('pointerdown', down)
      node.removeEventListener('pointermove', moved)
      node.removeEventListener('pointerup', up)
      node.removeEventListener('pointercancel', up)
      node.removeEventListener('keydown', key)
      node.removeEventListener('keyup', released)
    },
  }
}
