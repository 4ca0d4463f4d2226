<script setup lang="ts">
import { computed } from 'vue'

import type { Part } from '../api/client'
import type { Thing } from '../geometry/measured'
import type { Point } from '../geometry/view'

/** Edges, corners and middles of a part that can be pointed at: to measure from, or between. */
const props = defineProps<{
  part: Part
  /** Steps that offer theirs; all if none is named. */
  from?: ReadonlySet<string>
  chosen?: readonly string[]
  at: (point: Point) => Point
}>()
const emit = defineEmits<{ choose: [thing: Thing] }>()

const offers = (step: string) => !props.from || props.from.has(step)
const lines = computed(() =>
  props.part.lines
    .filter(({ step }) => offers(step))
    .map((of) => {
      const [a, b] = [props.at([of.ends[0]!, of.ends[1]!]), props.at([of.ends[2]!, of.ends[3]!])]
      return { of, path: `M${a.join(' ')}L${b.join(' ')}` }
    }),
)
const points = computed(() =>
  props.part.points.filter(({ step }) => offers(step)).map((of) => ({ of, at: props.at(of.at) })),
)
</script>

<template>
  <g class="targets">
    <path
      v-for="{ of, path } in lines"
      :key="of.name"
      :d="path"
      :class="{ chosen: chosen?.includes(of.name) }"
      tabindex="0"
      role="button"
      :aria-label="of.says"
      @click.stop="emit('choose', { kind: 'line', of })"
      @keydown.enter.prevent.stop="emit('choose', { kind: 'line', of })"
    >
      <title>{{ of.says }}</title>
    </path>
    <g
      v-for="{ of, at: place } in points"
      :key="of.name"
      class="point"
      :class="{ chosen: chosen?.includes(of.name) }"
      tabindex="0"
      role="button"
      :aria-label="of.says"
      :transform="`translate(${place[0]} ${place[1]})`"
      @click.stop="emit('choose', { kind: 'point', of })"
      @keydown.enter.prevent.stop="emit('choose', { kind: 'point', of })"
    >
      <title>{{ of.says }}</title>
      <circle r="11" class="touch" />
      <path class="tick" d="M-4 0H4M0 -4V4" />
    </g>
  </g>
</template>

<style scoped>
.targets > path {
  fill: none;
  stroke: color-mix(in srgb, var(--deep) 34%, transparent);
  stroke-width: 9;
  cursor: pointer;
}
.targets > path:hover,
.targets > path:focus-visible,
.targets > path.chosen {
  stroke: var(--deep);
  stroke-width: 5;
}
.point {
  cursor: pointer;
}
.touch {
  fill: transparent;
}
.tick {
  stroke: var(--deep);
  stroke-width: 2;
}
.point:hover .touch,
.point:focus-visible .touch,
.point.chosen .touch {
  fill: color-mix(in srgb, var(--deep) 30%, transparent);
}
</style>
