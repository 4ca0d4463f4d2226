<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'

import type { Part, Step } from '../api/client'
import { useNodes } from '../composables/useNodes'
import { useSay } from '../composables/useSay'
import type { Point } from '../geometry/view'
import { useSettings } from '../stores/settings'
import { MM_PER_INCH } from '../units'

/** The nodes of a free outline to take hold of, and the middles of its edges: a click there adds a node, dragging bends the edge. */
const props = defineProps<{ part: Part; step: Step; at: (point: Point) => Point; pxPerMm: number }>()
const say = useSay()
const settings = useSettings()
const nodes = useNodes(() => props.part.id, () => props.step.id) // prettier-ignore
const LEAST = 3
const CLICK_PX = 4
const PAUSE_MS = 450

type Kind = 'node' | 'edge'
interface Grip {
  id: number
  kind: Kind
  node: string
  from: Point
  begun: boolean
}
let grip: Grip | null = null
/** What is moved, and how far, in mm. */
const held = shallowRef<{ kind: Kind; node: string; by: Point } | null>(null)
const busy = ref(false)
watch(() => props.step.nodes, () => (held.value = null)) // prettier-ignore

const grid = computed(() => (settings.unit === 'in' ? MM_PER_INCH / 16 : 1))
const onGrid = (value: number) => Math.round(value / grid.value) * grid.value
const placed = computed(() =>
  props.step.nodes.map(({ id, at, middle }, i, all) => {
    const next = all[(i + 1) % all.length]!
    return {
      id,
      at,
      middle,
      next: next.id,
      number: i + 1,
    }
  }),
)
const byOf = (kind: Kind, node: string): Point =>
  held.value?.kind === kind && held.value.node === node ? held.value.by : [0, 0]
const moved = (kind: Kind, node: string, [x, y]: Point): Point => {
  const [dx, dy] = byOf(kind, node)
  return props.at([x + dx, y + dy])
}
/** Short edges have no middle to take hold of beside their nodes. */
const SHORT_PX = 34
const wide = computed(() => {
  const far = (a: Point, b: Point) => Math.hypot(a[0] - b[0], a[1] - b[1])
  return placed.value.filter((one) => {
    const [from, to] = [props.at(one.at), props.at(placed.value.find(({ id }) => id === one.next)!.at)]
    const middle = props.at(one.middle)
    return Math.min(far(from, middle), far(middle, to)) > SHORT_PX / 2
  })
})
/** Middles first: where the two lie over each other a node is taken hold of. */
const handles = computed(() => [
  ...wide.value.map(({ id, middle, number }) => ({
    kind: 'edge' as const,
    id,
    place: middle,
    label: `Edge from node ${number}: Enter adds a node, arrow keys bend it`,
    says: 'Click to add a node, drag to bend the edge',
  })),
  ...placed.value.map(({ id, at, number }) => ({
    kind: 'node' as const,
    id,
    place: at,
    label: `Node ${number}: arrow keys move it, Delete removes it`,
    says: `Node ${number}: drag it`,
  })),
])
/** The two edges at a node that moves, or the edge that bends, as they will be. */
const ghost = computed(() => {
  const now = held.value
  if (!now) return ''
  const i = placed.value.findIndex(({ id }) => id === now.node)
  const all = placed.value
  const [before, own, next] = [all[(i + all.length - 1) % all.length]!, all[i]!, all[(i + 1) % all.length]!]
  const way =
    now.kind === 'node'
      ? [props.at(before.at), moved('node', own.id, own.at), props.at(next.at)]
      : [props.at(own.at), moved('edge', own.id, own.middle), props.at(next.at)]
  return `M${way.map((point) => point.join(' ')).join('L')}`
})
const said = computed(() => {
  const now = held.value
  const own = now && placed.value.find(({ id }) => id === now.node)
  if (!now || !own) return ''
  if (now.kind === 'edge') return ''
  return `${say.short(own.at[0] + now.by[0])}, ${say.short(own.at[1] + now.by[1])} ${say.unit}`
})

function down(event: PointerEvent, kind: Kind, node: string): void {
  if (event.button || busy.value) return
  event.stopPropagation()
  grip = { id: event.pointerId, kind, node, from: [event.clientX, event.clientY], begun: false }
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}

function move(event: PointerEvent): void {
  if (grip?.id !== event.pointerId) return
  event.stopPropagation()
  const [x, y] = [event.clientX - grip.from[0], grip.from[1] - event.clientY]
  if (!grip.begun && Math.hypot(x, y) < CLICK_PX) return
  grip.begun = true
  const by: Point = [x / props.pxPerMm, y / props.pxPerMm]
  const own = placed.value.find(({ id }) => id === grip!.node)
  if (!own) return
  const free = grip.kind === 'edge' || event.altKey
  held.value = {
    kind: grip.kind,
    node: grip.node,
    by: free ? by : [onGrid(own.at[0] + by[0]) - own.at[0], onGrid(own.at[1] + by[1]) - own.at[1]],
  }
}

async function up(event: PointerEvent): Promise<void> {
  if (grip?.id !== event.pointerId) return
  event.stopPropagation()
  const { kind, node, begun } = grip
  grip = null
  if (begun) await keep()
  else if (kind === 'edge') await nodes.add(node)
}

function cancel(): void {
  grip = null
  held.value = null
}

/** Writes where it is now; what cannot be goes back. */
async function keep(): Promise<void> {
  const now = held.value
  if (!now) return
  busy.value = true
  const [dx, dy] = now.by
  await (now.kind === 'node' ? nodes.move : nodes.bend)(now.node, dx, dy)
  busy.value = false
  held.value = null
}
const settle = useDebounceFn(() => void keep(), PAUSE_MS)

const ARROWS: Record<string, Point> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
}
function key(event: KeyboardEvent, kind: Kind, node: string): void {
  const way = ARROWS[event.key]
  if (way) {
    const by = byOf(kind, node)
    const step = settings.nudgeMm * (event.shiftKey ? 10 : 1)
    held.value = { kind, node, by: [by[0] + way[0] * step, by[1] + way[1] * step] }
    void settle()
  } else if (event.key === 'Escape' && held.value) cancel()
  else if (kind === 'edge' && (event.key === 'Enter' || event.key === ' ')) void nodes.add(node)
  else if (kind === 'node' && (event.key === 'Delete' || event.key === 'Backspace')) {
    if (placed.value.length > LEAST) void nodes.remove(node)
  } else return
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <g class="nodes">
    <path v-if="ghost" class="ghost" :d="ghost" />
    <g
      v-for="one in handles"
      :key="`${one.kind} ${one.id}`"
      :class="one.kind"
      tabindex="0"
      role="button"
      :aria-label="one.label"
      :transform="`translate(${moved(one.kind, one.id, one.place).join(' ')})`"
      @pointerdown="down($event, one.kind, one.id)"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="cancel"
      @click.stop
      @keydown="key($event, one.kind, one.id)"
    >
      <title>{{ one.says }}</title>
      <circle :r="one.kind === 'node' ? 12 : 11" class="touch" />
      <circle v-if="one.kind === 'node'" r="5" class="mark" />
      <path v-else class="mark" d="M-4 0H4M0 -4V4" />
      <text v-if="said && one.kind === 'node' && held?.node === one.id" x="12" y="-10">{{ said }}</text>
    </g>
  </g>
</template>

<style scoped>
.node,
.edge {
  cursor: grab;
}
.node:focus-visible,
.edge:focus-visible {
  outline: none;
}
.touch {
  fill: transparent;
}
.node:focus-visible .touch,
.edge:focus-visible .touch {
  stroke: var(--ochre);
  stroke-width: 2;
}
.node .mark {
  fill: var(--sheet);
  stroke: var(--deep);
  stroke-width: 2;
}
.node:hover .mark {
  fill: var(--deep);
}
.edge .mark {
  stroke: var(--deep);
  stroke-width: 1.5;
  opacity: 0.65;
}
.edge:hover .mark,
.edge:focus-visible .mark {
  stroke-width: 2.5;
  opacity: 1;
}
.ghost {
  fill: none;
  stroke: var(--deep);
  stroke-dasharray: 5 4;
  pointer-events: none;
}
text {
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--sheet);
  stroke-width: 4;
  font: 0.85rem var(--figures);
}
</style>
