<script setup lang="ts">
import { computed } from 'vue'

import type { InFile, Operation } from '../api/client'
import type { Label } from '../geometry/names'
import type { Box, Point } from '../geometry/view'
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
const names = computed<Label[]>(() =>
  (props.file.outlines.length <= MOST_NAMED ? props.file.outlines : []).map((one) => ({
    key: `${one.part}-${one.copy}`,
    text: (copies.value.get(one.part) ?? 1) > 1 ? `${one.title} ${one.copy}` : one.title,
    note: turn(one.turn) && `  ${turn(one.turn)}`,
    box: one.box,
    room: one.room,
  })),
)
/** Names make way for the discs and for the zero. */
function taken(at: (point: Point) => Point): Box[] {
  const [x, y] = at(zero.value)
  const marks = discs.value.map((disc): Box => {
    const [right, low] = at(disc.at)
    return [right - 26, low - 26, right, low]
  })
  return [...marks, [x + 8, y - 24, x + 26, y]]
}
const zero = computed(() => props.file.origin as [number, number])
</script>

<template>
  <DrawingFrame
    :box="[0, 0, file.width, file.height]"
    :label="`In the file ${file.name}`"
    :readout="false"
    :names="names"
    :taken="taken"
    class="in-file"
  >
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
    <template #over="{ at }">
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
.in-file {
  --under-names: var(--sheet);
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
