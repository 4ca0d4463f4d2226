<script setup lang="ts">
import { computed } from 'vue'

import type { InFile, Operation } from '../api/client'
import { useSay } from '../composables/useSay'
import DrawingFrame from './DrawingFrame.vue'

/** A file as its receiver will see it, and nothing else: solid is cut, the dotted edge of the sheet is not in it. The discs stand
 * where each kind of work begins; each part says when it is cut. */
const props = defineProps<{ file: InFile; looked: Operation | null }>()
const say = useSay()
const MOST_NAMED = 60

/** The discs as in the sentences: one a kind of work. */
const discs = computed(() => {
  const found: { operation: Operation; at: readonly [number, number]; number: number }[] = []
  for (const { operation, at } of props.file.works) {
    if (found.some((one) => one.operation === operation)) continue
    found.push({ operation, at: at as [number, number], number: found.length + 1 })
  }
  return found
})
const named = computed(() => (props.file.outlines.length <= MOST_NAMED ? props.file.outlines : []))
const copies = computed(() => {
  const counts = new Map<string, number>()
  for (const { part } of props.file.outlines) counts.set(part, (counts.get(part) ?? 0) + 1)
  return counts
})
function turn(n: number): string {
  const count = props.file.outlines.length
  if (count < 2) return ''
  if (n === 1) return 'first'
  if (n === count) return 'last'
  const ends: Record<number, string> = { 1: 'st', 2: 'nd', 3: 'rd' }
  return `${n}${n % 100 > 10 && n % 100 < 14 ? 'th' : (ends[n % 10] ?? 'th')}`
}
/** A name makes way for discs, up or down. */
const SHIFTS = [0, 15, -15, 22]
function nameAt(place: readonly number[], at: (point: [number, number]) => readonly [number, number]) {
  const [x, y] = at(place as [number, number])
  const clear = (dy: number) =>
    discs.value.every((disc) => {
      const [dx, ddy] = at(disc.at as [number, number])
      return Math.abs(dx - 13 - x) > 50 || Math.abs(ddy - 13 - (y + dy)) > 15
    })
  return [x, y + (SHIFTS.find(clear) ?? 0)] as const
}
const zero = computed(() => props.file.origin as [number, number])
</script>

<template>
  <DrawingFrame :box="[0, 0, file.width, file.height]" :label="`In the file ${file.name}`" :readout="false">
    <template #default>
      <rect class="edge" x="0" y="0" :width="file.width" :height="file.height" />
      <path
        v-for="(work, i) in file.works"
        :key="i"
        class="work"
        :class="[
          work.operation,
          { faded: looked && looked !== work.operation, looked: looked === work.operation },
        ]"
        fill-rule="evenodd"
        :d="work.data"
      />
    </template>
    <template #over="{ at, pxPerMm }">
      <text
        v-for="one in named"
        :key="`${one.part}-${one.copy}`"
        class="name"
        :x="nameAt(one.at, at)[0]"
        :y="nameAt(one.at, at)[1] + 5"
      >
        <template v-if="pxPerMm > 0.55"
          >{{ one.title }}{{ (copies.get(one.part) ?? 1) > 1 ? ` ${one.copy}` : '' }}</template
        >
        <tspan class="turn" dx="5">{{ turn(one.turn) }}</tspan>
      </text>
      <g
        v-for="disc in discs"
        :key="disc.operation"
        class="disc"
        :class="{ looked: looked === disc.operation }"
      >
        <circle :cx="at(disc.at)[0] - 13" :cy="at(disc.at)[1] - 13" r="11" />
        <text class="figure" :x="at(disc.at)[0] - 13" :y="at(disc.at)[1] - 8.5">{{ disc.number }}</text>
      </g>
      <g class="zero" :transform="`translate(${at(zero)[0]} ${at(zero)[1]})`">
        <path
          :d="`M-9 0H9M0 -9V9M9 0h14l-5 -3m5 3l-5 3M0 ${file.y_down ? 9 : -9}v${file.y_down ? 14 : -14}l-3 ${file.y_down ? -5 : 5}m3 ${file.y_down ? 5 : -5}l3 ${file.y_down ? -5 : 5}`"
        />
        <text x="12" y="-8">0</text>
        <title>
          Where the file’s coordinates are 0: {{ say.size(zero[0], zero[1]) }} {{ say.unit }} from the lower
          left
        </title>
      </g>
    </template>
  </DrawingFrame>
</template>

<style scoped>
.edge {
  fill: none;
  stroke: var(--edge);
  stroke-dasharray: 2 4;
}
.work {
  stroke-width: 1.5;
}
.faded {
  opacity: 0.22;
}
.work.looked {
  stroke: var(--deep);
  stroke-width: 2.2;
}
.name {
  text-anchor: middle;
  paint-order: stroke;
  stroke: var(--sheet);
  stroke-width: 4px;
  stroke-linejoin: round;
  fill: var(--ink);
  pointer-events: none;
}
.turn {
  fill: var(--second);
  font-size: 0.9rem;
}
.disc circle {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.5;
}
.disc text {
  text-anchor: middle;
  fill: var(--ink);
  font-size: 13px;
}
.disc.looked circle {
  fill: var(--deep);
  stroke: var(--deep);
}
.disc.looked text {
  fill: var(--on-deep);
}
.zero path {
  fill: none;
  stroke: var(--deep);
  stroke-width: 1.6;
}
.zero text {
  fill: var(--deep);
  font-weight: 600;
}
</style>
