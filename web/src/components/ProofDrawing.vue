<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Design } from '../api/client'
import { placing, useSheet } from '../composables/useSheet'
import { usePicking } from '../composables/usePicking'
import { pickOf } from '../stores/selection'
import { useSay } from '../composables/useSay'
import { useJob } from '../stores/job'
import DrawingFrame from './DrawingFrame.vue'

/** One sheet as the file read back gives it: the path, the beam along it, and the finished edge that it leaves. */
const props = defineProps<{ sheet: Design['sheets'][number] }>()
const job = useJob()
const say = useSay()
const drawing = ref<InstanceType<typeof DrawingFrame> | null>(null)

const { onPick, onMenu } = usePicking()
const { parts, placed } = useSheet(() => props.sheet)
/** Of just this state: an older one is of other parts. */
const proof = computed(() => job.fresh)
/** Thousands of shapes are drawn as one: what moves with the view is few elements, whatever the job. */
const finished = computed(() => (proof.value?.finished[String(props.sheet.number)] ?? []).join(''))
const paths = computed(() => proof.value?.paths[String(props.sheet.number)] ?? [])
const findings = computed(() =>
  (proof.value?.findings ?? []).filter(({ sheet, place }) => sheet === props.sheet.number && place),
)
const cuts = computed(() => paths.value.filter(({ operation }) => operation === 'cut'))
const allCuts = computed(() => cuts.value.map(({ path }) => path).join(''))
const others = computed(() => {
  const works = new Map<string, string>()
  for (const { operation, path } of paths.value)
    if (operation !== 'cut') works.set(operation, (works.get(operation) ?? '') + path)
  return [...works]
})
const kerf = computed(
  () => job.design!.boards.find(({ id }) => id === props.sheet.board)?.basis.machine.kerf ?? 0,
)

/** The first corner between two straight stretches of a path, close enough to see the beam: of the part that is selected, else
 * of any. */
function lookAtCorner(): void {
  const own = cuts.value.filter(({ part }) => part === job.picked.part)
  const corner = [...own, ...cuts.value].map(({ path }) => /L(\S+) (\S+?)L/.exec(path)).find(Boolean)
  if (!corner) return
  const [x, y, reach] = [Number(corner[1]), Number(corner[2]), Math.max(kerf.value, 0.05) * 4]
  drawing.value?.lookAt([x - reach, y - reach, x + reach, y + reach])
}

/** Near enough for what is wrong there to be seen, and far enough to know where it is. */
function lookAt(place: readonly [number, number], amount = 0): void {
  const reach = Math.min(Math.max(kerf.value * 4, 1, Math.abs(amount) * 4), 60)
  drawing.value?.lookAt([place[0] - reach, place[1] - reach, place[0] + reach, place[1] + reach])
}

defineExpose({ lookAt, lookAtCorner })
</script>

<template>
  <DrawingFrame
    ref="drawing"
    :box="[0, 0, sheet.width, sheet.height]"
    :label="`Sheet ${sheet.number} as cut`"
    @pick="onPick"
    @menu="onMenu"
  >
    <template #default>
      <rect class="sheet" x="0" y="0" :width="sheet.width" :height="sheet.height" />
      <path class="many finished" :d="finished" fill-rule="evenodd" />
      <path class="many beam" :d="allCuts" :style="{ strokeWidth: `${kerf}px` }" />
      <path
        v-for="one in placed"
        :key="`nominal-${one.part}-${one.copy_number}`"
        class="many nominal"
        :class="{ selected: job.picked.part === one.part }"
        :data-pick="pickOf('part', one.part)"
        :d="parts.get(one.part)!.path"
        :transform="placing(one)"
      />
      <path class="many path" :d="allCuts" />
      <path
        v-for="[operation, path] in others"
        :key="operation"
        class="work"
        :class="operation"
        fill-rule="evenodd"
        :d="path"
      />
    </template>
    <template #over="{ at }">
      <g v-for="(finding, i) in findings" :key="i" class="finding">
        <circle :cx="at(finding.place!)[0]" :cy="at(finding.place!)[1]" r="9" />
        <title>{{ say.sentence(finding.why) }}</title>
      </g>
    </template>
  </DrawingFrame>
</template>

<style scoped>
.sheet {
  fill: var(--sheet);
  stroke: var(--edge);
}
.finished {
  fill: var(--board);
  stroke: var(--deep);
  stroke-width: calc(1.6 * var(--px));
}
.beam {
  fill: none;
  stroke: var(--beam);
  stroke-linejoin: round;
}
.nominal {
  fill: transparent;
  stroke: var(--ink);
  stroke-width: calc(0.8 * var(--px));
  stroke-dasharray: var(--px) calc(4 * var(--px));
  cursor: pointer;
}
.nominal.selected {
  fill: color-mix(in srgb, var(--deep) 14%, transparent);
}
.path {
  fill: none;
  stroke: var(--path);
  pointer-events: none;
  stroke-width: var(--px);
}
.finding circle {
  fill: none;
  stroke: var(--bad);
  stroke-width: 2.5;
}
</style>
