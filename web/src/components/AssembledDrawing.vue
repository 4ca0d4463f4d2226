<script setup lang="ts">
import { computed, ref } from 'vue'

import { assembled, project, type Panel } from '../geometry/standing'
import type { Box } from '../geometry/view'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { inUnit } from '../units'
import DrawingFrame from './DrawingFrame.vue'

/** The parts standing as they will, to scale along each axis; they can be drawn apart. Joints are picked here. */
const job = useJob()
const settings = useSettings()
const apart = ref(0)

/** Every part where it stands; one that stands nowhere is not drawn. */
const panels = computed<Panel[]>(() => {
  const parts = new Map(job.design!.parts.map((part) => [part.id, part]))
  return job.design!.standings.flatMap((standing) => {
    const part = parts.get(standing.part)
    return part ? [{ ...standing, id: part.id, thickness: part.thickness, outline: part.outline }] : []
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
  const proof = job.proof?.moves === job.design!.moves ? job.proof.findings : job.design!.findings
  return proof.flatMap((one) => (one.space ? [{ ...one, at: project(one.space) }] : []))
})

const selectedParts = computed(() => {
  const mate = job.design!.mates.find(({ id }) => job.selected === `joint:${id}`)
  return mate ? [mate.first.part, mate.second.part] : [job.selected.replace('part:', '')]
})
</script>

<template>
  <div class="assembled">
    <DrawingFrame :box="box" label="Assembled" :readout="false">
      <template #default>
        <path
          v-for="(face, i) in faces"
          :key="i"
          :class="[face.kind, { selected: selectedParts.includes(face.part) }]"
          :d="`M${face.points.map((p) => p.join(' ')).join('L')}Z`"
          @click="job.selected = `part:${face.part}`"
        />
      </template>
      <template v-if="!apart" #over="{ at }">
        <line
          v-for="{ mate, start, end } in joints"
          :key="mate.id"
          class="joint"
          :class="{ selected: job.selected === `joint:${mate.id}` }"
          :x1="at(start)[0]"
          :y1="at(start)[1]"
          :x2="at(end)[0]"
          :y2="at(end)[1]"
          @click="job.selected = `joint:${mate.id}`"
        />
        <g v-for="(finding, i) in findings" :key="`finding-${i}`" :class="finding.severity">
          <title>{{ inUnit(finding.why, settings.unit) }}</title>
          <circle :cx="at(finding.at)[0]" :cy="at(finding.at)[1]" r="9" />
        </g>
      </template>
    </DrawingFrame>
    <label class="apart small"
      >together <input v-model.number="apart" type="range" min="0" max="100" /> apart</label
    >
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
  gap: 8px;
  align-items: center;
  color: var(--second);
}
input {
  accent-color: var(--deep);
}
</style>
