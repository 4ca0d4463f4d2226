import { useEventListener, useResizeObserver } from '@vueuse/core'
import { computed, ref, shallowRef, watch, type Ref } from 'vue'

import { fit, matrix, pan, toWork, zoomAt, type Box, type Point, type View } from '../geometry/view'

/** Room for the scale bar. */
const BELOW = 34
const LEAST_PX = 360
const STEP_PX = 60
const ZOOM_STEP = 1.25

/** Pan, zoom and fit of one drawing by wheel, pointers (one drags, two pinch) and keys, from mount to unmount. */
export function useViewport(
  frame: Ref<SVGSVGElement | null>,
  box: () => Box,
  aside = () => 0,
  padding = () => 24,
) {
  const size = shallowRef({ width: 800, height: 500 })
  const view = shallowRef<View>({ scale: 1, x: 0, y: 0 })
  const pointer = shallowRef<Point | null>(null)
  const touched = ref(false)
  const fingers = new Map<number, Point>()

  function fitAll(): void {
    touched.value = false
    const { width, height } = size.value
    // What lies over the right end of the drawing gets room, if enough is left.
    const room = width - aside() > LEAST_PX ? width - aside() : width
    view.value = fit(box(), room, height, padding(), BELOW)
  }

  function lookAt(target: Box): void {
    touched.value = true
    view.value = fit(target, size.value.width, size.value.height, 0)
  }

  function zoom(factor: number, at: Point = [size.value.width / 2, size.value.height / 2]): void {
    touched.value = true
    view.value = zoomAt(view.value, factor, at[0], at[1])
  }

  function place(event: MouseEvent): Point {
    const edge = frame.value!.getBoundingClientRect()
    return [event.clientX - edge.left, event.clientY - edge.top]
  }

  function onWheel(event: WheelEvent): void {
    event.preventDefault()
    zoom(Math.exp(-event.deltaY * (event.deltaMode ? 0.05 : 0.0015)), place(event))
  }

  /** Whether the pointer that is down has moved the drawing: letting it go is no click then. */
  let dragged = false

  function onDown(event: PointerEvent): void {
    if (!fingers.size) dragged = false
    fingers.set(event.pointerId, place(event))
  }

  function onMove(event: PointerEvent): void {
    const now = place(event)
    pointer.value = toWork(view.value, now)
    const before = fingers.get(event.pointerId)
    if (!before) return
    const other = [...fingers].find(([id]) => id !== event.pointerId)?.[1]
    const moved: Point = [now[0] - before[0], now[1] - before[1]]
    if (other) dragged = true
    if (other) zoom(distance(now, other) / Math.max(distance(before, other), 1), middle(now, other))
    else if (fingers.size === 1 && (event.buttons & 1 || event.pointerType === 'touch')) {
      if (!dragged && Math.hypot(...moved) < 4) return // a click may tremble
      dragged = true
      frame.value!.setPointerCapture(event.pointerId)
      touched.value = true
      view.value = pan(view.value, ...moved)
    }
    fingers.set(event.pointerId, now)
  }

  function onUp(event: PointerEvent): void {
    fingers.delete(event.pointerId)
  }

  function onClick(event: MouseEvent): void {
    if (dragged) event.stopPropagation()
    dragged = false
  }

  function onLeave(event: PointerEvent): void {
    pointer.value = null
    onUp(event)
  }

  const KEYS: Record<string, () => void> = {
    ArrowLeft: () => (view.value = pan(view.value, STEP_PX, 0)),
    ArrowRight: () => (view.value = pan(view.value, -STEP_PX, 0)),
    ArrowUp: () => (view.value = pan(view.value, 0, STEP_PX)),
    ArrowDown: () => (view.value = pan(view.value, 0, -STEP_PX)),
    '+': () => zoom(ZOOM_STEP),
    '=': () => zoom(ZOOM_STEP),
    '-': () => zoom(1 / ZOOM_STEP),
    '0': fitAll,
  }

  function onKey(event: KeyboardEvent): void {
    const act = KEYS[event.key]
    if (!act || event.ctrlKey || event.metaKey || event.altKey) return
    event.preventDefault()
    touched.value = touched.value || event.key !== '0'
    act()
  }

  useResizeObserver(frame as Ref<SVGElement | null>, ([entry]) => {
    const { width, height } = entry!.contentRect
    if (!width || !height) return
    size.value = { width, height }
    if (!touched.value) fitAll()
  })
  useEventListener(frame, 'wheel', onWheel, { passive: false })
  // A drawing that the maker has not moved follows its content.
  watch(
    () => `${box().join()} ${aside()}`,
    () => touched.value || fitAll(),
  )

  const transform = computed(() => matrix(view.value))
  return {
    view,
    size,
    pointer,
    transform,
    fitAll,
    lookAt,
    zoom,
    onDown,
    onMove,
    onUp,
    onClick,
    onLeave,
    onKey,
  }
}

function distance(a: Point, b: Point): number {
  return Math.hypot(a[0] - b[0], a[1] - b[1])
}

function middle(a: Point, b: Point): Point {
  return [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]
}
