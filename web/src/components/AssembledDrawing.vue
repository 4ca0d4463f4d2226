<script setup lang="ts">
import { computed, ref } from 'vue'

import { assembled, project, type Panel } from '../geometry/standing'
import type { Box } from '../geometry/view'
import { useSay } from '../composables/useSay'
import { usePicking } from '../composables/usePicking'
import { pickOf } from '../stores/selection'
import { useJob } from '../stores/job'
import DrawingFrame from './DrawingFrame.vue'

/** The parts standing as they will, to scale along each axis; they can be drawn apart. Joints are picked here. */
const props = defineProps<{
  /** Outlines to draw in place of the nominal ones, by part. */
  outlines?: Readonly<Record<string, Panel['outline']>>
  aside?: number
}>()
const job = useJob()
const say = useSay()
const { onPick, onMenu } = usePicking()
const apart = ref(0)
const titles = computed(() => new Map(job.design!.parts.map(({ id, title }) => [id, title])))

/** Every part where it stands; one that stands nowhere is not drawn. */
const panels = computed<Panel[]>(() => {
  const parts = new Map(job.design!.parts.map((part) => [part.id, part]))
  return job.design!.standings.flatMap((standing) => {
    const part = parts.get(standing.part)
    return part
      ? [
          {
            ...standing,
            id: part.id,
            thickness: part.thickness,
            outline: props.outlines?.[part.id] ?? part.outline,
          },
        ]
      : []
  })
})
const reach = computed(() => Math.max(0, ...job.design!.parts.map(({ box }) => box[2] - box[0])) * 0.35)
const faces = computed(() => assembled(panels.value, (apart.value / 100) * reach.value))
const box = computed<Box>(() => {
  const all = assembled(panels.value, apart.value ? reach.value : 0).flatMap(({ points }) => points)
  const xs = all.map(([x]) => x)
  const ys = all.map(([, y]) => y)
  return xs.length ? [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)] : [0, 0, 100, 60]
})

/** Where each joint runs, half-way into the boards. */
const joints = computed(() =>
  job.design!.mates.map((mate) => ({ mate, start: project(mate.start), end: project(mate.end) })),
)

/** Where something is wrong, as far as it has a place when the parts stand together. */
const findings = computed(() => {
  const found = job.fresh ? job.fresh.findings : job.design!.findings
  return found.flatMap((one) => (one.space ? [{ ...one, at: project(one.space) }] : []))
})

const selectedParts = computed(() => {
  const mate = job.design!.mates.find(({ id }) => id === job.picked.joint)
  return mate ? [mate.first.part, mate.second.part] : [job.picked.part]
})
</script>

<template>
  <div class="assembled">
    <DrawingFrame
      :box="box"
      label="Assembled"
      :readout="false"
      :aside="aside ?? 0"
      @pick="onPick"
      @menu="onMenu"
    >
      <template #default>
        <path
          v-for="(face, i) in faces"
          :key="i"
          :class="[face.kind, { selected: selectedParts.includes(face.part) }]"
          :d="`M${face.points.map((p) => p.join(' ')).join('L')}Z`"
          :data-pick="pickOf('part', face.part)"
          :tabindex="face.kind === 'face' ? 0 : undefined"
          :role="face.kind === 'face' ? 'button' : undefined"
          :aria-label="face.kind === 'face' ? titles.get(face.part) : undefined"
          @keydown.enter="job.toggle('part', face.part)"
        />
      </template>
      <template #over="{ at }">
        <line
          v-for="{ mate, start, end } in apart ? [] : joints"
          :key="mate.id"
          class="joint"
          :class="{ selected: job.picked.joint === mate.id }"
          :x1="at(start)[0]"
          :y1="at(start)[1]"
          :x2="at(end)[0]"
          :y2="at(end)[1]"
          :data-pick="pickOf('joint', mate.id)"
          tabindex="0"
          role="button"
          :aria-label="`Joint: ${mate.title}`"
          :aria-pressed="job.picked.joint === mate.id"
          @keydown.enter="job.toggle('joint', mate.id)"
        />
        <g v-for="(finding, i) in apart ? [] : findings" :key="`finding-${i}`" :class="finding.severity">
          <title>{{ say.sentence(finding.why) }}</title>
          <circle :cx="at(finding.at)[0]" :cy="at(finding.at)[1]" r="9" />
        </g>
      </template>
    </DrawingFrame>
    <div class="apart small">
      <span aria-hidden="true">Together</span>
      <ElSlider v-model="apart" aria-label="How far apart" size="small" :show-tooltip="false" />
      <span aria-hidden="true">Apart</span>
    </div>
  </div>
</template>

<style scoped>
.assembled {
  position: relative;
  display: grid;
  min-height: 0;
}
path {
  stroke: var(--ink);
  stroke-width: 0.8;
  stroke-linejoin: round;
  fill: color-mix(in srgb, var(--board) 88%, transparent);
  cursor: pointer;
}
path.edge {
  fill: var(--end-grain);
}
path.selected {
  stroke: var(--deep);
  fill: color-mix(in srgb, var(--deep-wash) 88%, transparent);
}
circle {
  fill: transparent;
  stroke: var(--ochre);
  stroke-width: 2;
}
.stop circle {
  stroke: var(--bad);
}
.joint {
  stroke: transparent;
  stroke-width: 12;
  stroke-linecap: round;
  cursor: pointer;
}
.joint:focus-visible,
path:focus-visible {
  stroke: var(--deep);
  stroke-width: 3;
}
.joint:hover {
  stroke: color-mix(in srgb, var(--deep) 30%, transparent);
}
.joint.selected {
  stroke: color-mix(in srgb, var(--deep) 45%, transparent);
}
.apart {
  position: absolute;
  left: 22px;
  top: 12px;
  display: flex;
  gap: 14px;
  align-items: center;
  width: 16rem;
  color: var(--second);
}
</style>
