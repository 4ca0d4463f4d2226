<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Design, Finding, Proof } from '../api/client'
import { namesOf, placing, useSheet } from '../composables/useSheet'
import { usePicking } from '../composables/usePicking'
import { useSay } from '../composables/useSay'
import { furthestOff, magnification } from '../geometry/magnified'
import { useJob } from '../stores/job'
import { pickOf } from '../stores/selection'
import DrawingFrame from './DrawingFrame.vue'

/** A sheet as it comes out: calm where all is as wanted, deviations enlarged only where they are. While it is watched, only what
 * is cut so far. */
const props = defineProps<{
  sheet: Design['sheets'][number]
  proof: Proof | null
  /** How many paths are cut; all of them where it is more. */
  done: number
  finding: Finding | null
  /** Whether the inner corners stand out. */
  corners: boolean
  /** px to leave free at the right. */
  aside: number
}>()
const job = useJob()
const say = useSay()
const drawing = ref<InstanceType<typeof DrawingFrame> | null>(null)

const { onPick, onMenu } = usePicking()
const { parts, placed } = useSheet(() => props.sheet)
const number = computed(() => String(props.sheet.number))
/** Thousands of shapes are drawn as one: what moves with the view is few elements, whatever the job. */
const finished = computed(() => (props.proof?.finished[number.value] ?? []).join(''))
const paths = computed(() => props.proof?.paths[number.value] ?? [])
const watching = computed(() => props.done < paths.value.length)
const marks = computed(() => {
  const works = new Map<string, string>()
  for (const { operation, path } of paths.value)
    if (operation !== 'cut') works.set(operation, (works.get(operation) ?? '') + path)
  return [...works]
})
const soFar = computed(() => joined(0, props.done - 1))
const toCome = computed(() => joined(props.done, paths.value.length))
const current = computed(() => paths.value[props.done - 1]?.path ?? '')
const joined = (from: number, to: number) =>
  paths.value
    .slice(Math.max(from, 0), Math.max(to, 0))
    .map(({ path }) => path)
    .join('')

const proofs = computed(() => (props.proof?.parts ?? []).filter(({ sheet }) => sheet === props.sheet.number))
const kept = computed(() => proofs.value.flatMap((part) => part.kept))
/** All dots as one path: a line without length with a round end. */
const dots = computed(() => kept.value.map(([x, y]) => `M${x} ${y}h0`).join(''))
const most = computed(() => furthestOff(proofs.value))
const times = computed(() => magnification(most.value))
/** Along each edge that is off, a band as wide as it is off, enlarged. */
const bands = computed(() =>
  proofs.value
    .flatMap(({ runs }) => runs)
    .map((run) => {
      const out = run.map(([x, y]) => `${x} ${y}`)
      const back = run.map(([x, y, dx, dy]) => `${x! + dx! * times.value} ${y! + dy! * times.value}`)
      return `M${[...out, ...back.reverse()].join('L')}Z`
    })
    .join(''),
)

/** With each part's name its worst deviation, and whether that is fine. */
const labels = computed(() =>
  namesOf(placed.value, parts.value).map((label, i) => {
    const one = placed.value[i]!
    const found = proofs.value.find(({ part: id, copy }) => id === one.part && copy === one.copy_number)
    const worst = found && [found.edge, found.corner].filter((mm): mm is number => mm !== null)
    const value = worst?.length ? say.length(Math.max(...worst), 3) : found ? 'missing' : ''
    const note = value && `  ${found?.ok ? '✓' : '!'} ${value}`
    return { ...label, note, wrong: found?.ok === false, selected: job.picked.part === one.part }
  }),
)

/** Near enough for what is wrong there to be seen, and far enough to know where it is. */
function lookAt(place: readonly [number, number], amount = 0): void {
  const reach = Math.min(Math.max(1, Math.abs(amount) * 4), 60)
  drawing.value?.lookAt([place[0] - reach, place[1] - reach, place[0] + reach, place[1] + reach])
}

defineExpose({ lookAt })
</script>

<template>
  <DrawingFrame
    ref="drawing"
    :box="[0, 0, sheet.width, sheet.height]"
    :label="`Sheet ${sheet.number} as cut`"
    :aside="aside"
    :names="labels"
    @pick="onPick"
    @menu="onMenu"
  >
    <template #default>
      <rect class="sheet" x="0" y="0" :width="sheet.width" :height="sheet.height" />
      <path v-if="!watching" class="many finished" :d="finished" fill-rule="evenodd" />
      <path
        v-for="one in placed"
        :key="`nominal-${one.part}-${one.copy_number}`"
        class="many nominal"
        :class="{ selected: job.picked.part === one.part, bare: watching }"
        :data-pick="pickOf('part', one.part)"
        :d="parts.get(one.part)!.path"
        :transform="placing(one)"
      />
      <template v-if="watching">
        <path class="many to-come" :d="toCome" />
        <path class="many so-far" :d="soFar" />
        <path class="many current" :d="current" />
      </template>
      <template v-else>
        <path
          v-for="[operation, path] in marks"
          :key="operation"
          class="work"
          :class="operation"
          fill-rule="evenodd"
          :d="path"
        />
        <path class="many dots" :class="{ shown: corners }" :d="dots" />
        <path class="many off" :d="bands" />
      </template>
    </template>
    <template #over="{ at }">
      <g v-if="finding?.place && finding.sheet === sheet.number" class="finding" :class="finding.severity">
        <circle :cx="at(finding.place)[0]" :cy="at(finding.place)[1]" r="12" />
      </g>
    </template>
  </DrawingFrame>
</template>

<style scoped>
.sheet {
  fill: color-mix(in srgb, var(--ground) 45%, var(--sheet));
  stroke: var(--edge);
}
.finished {
  fill: var(--board);
  stroke: var(--ink);
  stroke-width: calc(1.1 * var(--px));
}
.nominal {
  fill: transparent;
  stroke: none;
  cursor: pointer;
}
.nominal:hover {
  fill: color-mix(in srgb, var(--deep) 7%, transparent);
}
.nominal.selected {
  fill: color-mix(in srgb, var(--deep) 16%, transparent);
  stroke: var(--deep);
  stroke-width: calc(2 * var(--px));
}
.nominal.bare {
  fill: none;
}
.dots {
  fill: none;
  stroke: var(--deep);
  stroke-linecap: round;
  stroke-width: calc(3.6 * var(--px));
  pointer-events: none;
}
.dots.shown {
  stroke-width: calc(8 * var(--px));
}
.off {
  fill: color-mix(in srgb, var(--ochre) 75%, transparent);
  stroke: var(--ochre);
  stroke-width: var(--px);
  pointer-events: none;
}
.to-come,
.so-far,
.current {
  fill: none;
  pointer-events: none;
  stroke-width: var(--px);
}
.to-come {
  stroke: var(--line);
}
.so-far {
  stroke: var(--ink);
  stroke-width: calc(1.6 * var(--px));
}
.current {
  stroke: var(--path);
  stroke-width: calc(3 * var(--px));
}
.finding circle {
  fill: none;
  stroke: var(--ochre);
  stroke-width: 2.5;
}
.finding.stop circle {
  stroke: var(--bad);
}
</style>
