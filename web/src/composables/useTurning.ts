import { useEventListener } from '@vueuse/core'
import { computed, ref, shallowRef, type Ref } from 'vue'

import { axesOf, type Eye } from '../geometry/solids'

/** Ways to look at what stands there. */
export const VIEWS: Readonly<Record<string, Eye>> = {
  'From a corner': { turn: 35, tilt: 30 },
  'From the front': { turn: 0, tilt: 0 },
  'From the right': { turn: 90, tilt: 0 },
  'From behind': { turn: 180, tilt: 0 },
  'From the left': { turn: 270, tilt: 0 },
  'From above': { turn: 0, tilt: 90 },
  'From below': { turn: 0, tilt: -90 },
}

const DEGREES_PX = 0.45
const STEP_DEGREES = 7.5
const ZOOM_STEP = 1.25

/** Turning, moving and zooming by mouse, touch and keys: one pointer turns, with Shift or two it moves, two also zoom. */
export function useTurning(frame: Ref<HTMLElement | null>, click: (x: number, y: number) => void) {
  const eye = shallowRef<Eye>(VIEWS['From a corner']!)
  const axes = computed(() => axesOf(eye.value))
  const zoomed = ref(1)
  const shift = shallowRef<readonly [number, number]>([0, 0])
  const moving = ref(false)
  const pointers = new Map<number, readonly [number, number]>()
  let dragged = false
  let rest: ReturnType<typeof setTimeout> | undefined

  /** While it moves it is drawn coarsely. */
  function stir(): void {
    moving.value = true
    clearTimeout(rest)
    rest = setTimeout(() => (moving.value = false), 160)
  }

  function turn(by: number, up: number): void {
    const { turn: now, tilt } = eye.value
    eye.value = { turn: (now + by + 360) % 360, tilt: Math.max(-90, Math.min(90, tilt + up)) }
    stir()
  }

  function move(dx: number, dy: number): void {
    shift.value = [shift.value[0] + dx, shift.value[1] + dy]
    stir()
  }

  function zoom(by: number): void {
    zoomed.value = Math.max(0.3, Math.min(40, zoomed.value * by))
    shift.value = [shift.value[0] * by, shift.value[1] * by]
    stir()
  }

  function showAll(): void {
    zoomed.value = 1
    shift.value = [0, 0]
  }

  function look(view: Eye): void {
    eye.value = view
    showAll()
  }

  const place = (event: PointerEvent) => {
    const edge = frame.value!.getBoundingClientRect()
    return [event.clientX - edge.left, event.clientY - edge.top] as const
  }

  useEventListener(frame, 'pointerdown', (event: PointerEvent) => {
    if ((event.target as Element).closest('button, a, input, [data-pick]')) return
    if (!pointers.size) dragged = false
    pointers.set(event.pointerId, place(event))
    ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  })
  useEventListener(frame, 'pointermove', (event: PointerEvent) => {
    const before = pointers.get(event.pointerId)
    if (!before) return
    const now = place(event)
    const [dx, dy] = [now[0] - before[0], now[1] - before[1]]
    if (!dragged && Math.hypot(dx, dy) < 3) return
    dragged = true
    const other = [...pointers].find(([id]) => id !== event.pointerId)?.[1]
    pointers.set(event.pointerId, now)
    if (other) {
      const [was, is] = [before, now].map((p) => Math.hypot(p[0] - other[0], p[1] - other[1]))
      if (was! > 8) zoom(is! / was!)
      move(dx / 2, dy / 2)
    } else if (event.shiftKey || event.buttons === 4) move(dx, dy)
    else turn(-dx * DEGREES_PX, dy * DEGREES_PX)
  })
  const up = (event: PointerEvent) => {
    const at = pointers.get(event.pointerId)
    pointers.delete(event.pointerId)
    if (at && !dragged && event.type === 'pointerup' && event.button === 0) click(...at)
  }
  useEventListener(frame, ['pointerup', 'pointercancel'], up)
  useEventListener(
    frame,
    'wheel',
    (event: WheelEvent) => {
      event.preventDefault()
      zoom(Math.exp(-event.deltaY * (event.deltaMode ? 0.05 : 0.0015)))
    },
    { passive: false },
  )

  const KEYS: Record<string, () => void> = {
    ArrowLeft: () => turn(STEP_DEGREES, 0),
    ArrowRight: () => turn(-STEP_DEGREES, 0),
    ArrowUp: () => turn(0, STEP_DEGREES),
    ArrowDown: () => turn(0, -STEP_DEGREES),
    '+': () => zoom(ZOOM_STEP),
    '-': () => zoom(1 / ZOOM_STEP),
    '0': showAll,
  }
  function onKey(event: KeyboardEvent): void {
    const act = KEYS[event.key]
    if (!act || event.ctrlKey || event.metaKey) return
    event.preventDefault()
    act()
  }

  return { eye, axes, zoomed, shift, moving, zoom, showAll, look, onKey }
}
