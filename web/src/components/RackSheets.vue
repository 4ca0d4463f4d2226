<script setup lang="ts">
import { computed } from 'vue'

import type { Stock } from '../api/client'
import { useSay } from '../composables/useSay'

/** The sheets and off-cuts of a board, all to one scale, with the way its grain or corrugation runs. */
const props = defineProps<{ stock: Stock['document'] }>()
const say = useSay()
const HIGHEST_PX = 150
const WIDEST_PX = 300

interface Shape {
  name: string
  points: readonly (readonly [number, number])[]
  width: number
  height: number
}

function rectangle(name: string, width: number, height: number): Shape {
  return { name, width, height, points: [[0, 0], [width, 0], [width, height], [0, height]] } // prettier-ignore
}

const shapes = computed<Shape[]>(() => {
  const { sheet_width, sheet_height, sheets, other_sheets, offcuts } = props.stock
  const count = (many: number | null) => (many === null ? 'as many as it takes' : `${many} at hand`)
  return [
    rectangle(count(sheets), sheet_width, sheet_height),
    ...other_sheets.map(({ width, height, count: many }) => rectangle(count(many), width, height)),
    ...offcuts.map(({ name, outline }) => {
      const xs = outline.map(([x]) => x)
      const ys = outline.map(([, y]) => y)
      const [left, low] = [Math.min(...xs), Math.min(...ys)]
      return {
        name,
        width: Math.max(...xs) - left,
        height: Math.max(...ys) - low,
        points: outline.map(([x, y]) => [x - left, y - low] as const),
      }
    }),
  ]
})
const scale = computed(() =>
  Math.min(
    HIGHEST_PX / Math.max(...shapes.value.map(({ height }) => height)),
    WIDEST_PX / Math.max(...shapes.value.map(({ width }) => width)),
  ),
)
const size = (shape: Shape) => `${say.short(shape.width)} × ${say.short(shape.height)}`
const drawn = ({ points, height }: Shape) =>
  points.map(([x, y]) => `${x * scale.value},${(height - y) * scale.value}`).join(' ')
</script>

<template>
  <ul>
    <li v-for="(shape, i) in shapes" :key="i">
      <svg :width="shape.width * scale + 2" :height="shape.height * scale + 2" aria-hidden="true">
        <defs>
          <pattern
            :id="`grain-${i}`"
            width="7"
            height="7"
            patternUnits="userSpaceOnUse"
            :patternTransform="stock.direction === 'along the height' ? 'rotate(90)' : ''"
          >
            <path d="M0 3.5H7" class="grain" />
          </pattern>
        </defs>
        <g transform="translate(1 1)">
          <polygon :points="drawn(shape)" class="board" />
          <polygon v-if="stock.direction !== 'none'" :points="drawn(shape)" :fill="`url(#grain-${i})`" />
        </g>
      </svg>
      <span class="figure small">{{ size(shape) }}</span>
      <span class="small second">{{ shape.name }}</span>
    </li>
  </ul>
</template>

<style scoped>
ul {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 14px 22px;
}
li {
  display: grid;
}
.board {
  fill: var(--board);
  stroke: var(--ink);
}
.grain {
  stroke: var(--third);
  stroke-width: 0.6;
}
</style>
