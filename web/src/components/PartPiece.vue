<script setup lang="ts">
import { computed } from 'vue'

import type { Part } from '../api/client'
import { useJob } from '../stores/job'
import { pickOf } from '../stores/selection'

/** One part where it lies: its outline, what is drawn on it, and everything of it that can be clicked. */
const props = defineProps<{
  part: Part
  transform: string
  name?: string
  /** It is the only one: it need not be told from others by its colour. */
  alone?: boolean
  /** Steps to show as following what is looked at. */
  lit?: ReadonlySet<string>
}>()
const job = useJob()

const isPart = computed(() => job.picked.part === props.part.id)
const marks = computed(() =>
  props.part.steps.filter(({ id, path, back }) => path && !back && !job.hidden.has(`${props.part.id}/${id}`)),
)
const isPicked = (step: string) => job.picked.part === props.part.id && job.steps.includes(step)
const stepPick = (step: string) => pickOf('step', props.part.id, step)
const edgePick = (edge: string) => pickOf('edge', props.part.id, edge)

function choose(): void {
  job.toggle('part', props.part.id)
}
</script>

<template>
  <g :transform="transform">
    <path
      :d="part.path"
      fill-rule="evenodd"
      class="part"
      :class="{ selected: isPart && !alone, changed: job.changed.parts.has(part.id) }"
      :data-pick="pickOf('part', part.id)"
      tabindex="0"
      role="button"
      :aria-label="name ?? part.title"
      :aria-pressed="isPart"
      @keydown.enter="choose"
      @keydown.space.prevent="choose"
    />
    <path v-if="part.sunk" :d="part.sunk" fill-rule="evenodd" class="work pocket" />
    <template v-for="mark in marks" :key="mark.id">
      <path
        v-if="!mark.opening"
        :d="mark.path"
        fill-rule="evenodd"
        class="work"
        :class="[mark.operation, { selected: isPicked(mark.id) }]"
      />
      <path
        :d="mark.path"
        class="hit"
        :class="{ opening: mark.opening, selected: isPicked(mark.id), lit: lit?.has(mark.id) }"
        :data-pick="stepPick(mark.id)"
      />
    </template>
    <template v-if="isPart">
      <line
        v-for="([x1, y1, x2, y2], edge) in part.sides"
        :key="edge"
        class="side"
        :class="{ selected: job.selected === edgePick(edge) }"
        :x1="x1"
        :y1="y1"
        :x2="x2"
        :y2="y2"
        :data-pick="edgePick(edge)"
      />
    </template>
  </g>
</template>

<style scoped>
.part {
  fill: var(--board);
  stroke: var(--ink);
  stroke-width: 1.2;
  cursor: pointer;
}
.part:hover {
  fill: color-mix(in srgb, var(--board) 60%, var(--deep-wash));
}
.part:focus-visible {
  stroke: var(--deep);
  stroke-width: 3;
}
.part.changed {
  stroke: var(--ochre);
  stroke-width: 2;
}
.part.selected {
  fill: var(--deep-wash);
  stroke: var(--deep);
  stroke-width: 2;
}
.work.selected {
  stroke-width: 2.2;
}
/* Wide enough for a finger, and seen only when it is meant. */
.hit {
  fill: transparent;
  stroke: transparent;
  stroke-width: 9;
  cursor: pointer;
}
.hit.opening {
  stroke-width: 2;
}
.hit:hover {
  fill: color-mix(in srgb, var(--deep) 12%, transparent);
}
.hit.selected {
  fill: color-mix(in srgb, var(--deep) 14%, transparent);
  stroke: var(--deep);
  stroke-width: 1.5;
}
.hit.lit {
  stroke: var(--deep);
  stroke-width: 3;
  stroke-dasharray: 5 3;
}
.side {
  stroke: transparent;
  stroke-width: 10;
  stroke-linecap: round;
  cursor: pointer;
}
.side:hover {
  stroke: color-mix(in srgb, var(--deep) 30%, transparent);
}
.side.selected {
  stroke: var(--deep);
  stroke-width: 5;
}
</style>
