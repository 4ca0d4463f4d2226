<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue'

import type { Part } from '../api/client'
import { usePicking } from '../composables/usePicking'
import type { usePlacing } from '../composables/usePlacing'
import { useSay } from '../composables/useSay'
import { between, type Thing } from '../geometry/measured'
import { sizeLines, type SizeLine } from '../geometry/sizes'
import { round, type Box, type Point } from '../geometry/view'
import { useJob } from '../stores/job'
import { useSettings, type FreeKey } from '../stores/settings'
import DrawingFrame from './DrawingFrame.vue'
import FoundLines from './FoundLines.vue'
import OutlineNodes from './OutlineNodes.vue'
import PartPiece from './PartPiece.vue'
import PickTargets from './PickTargets.vue'
import SizeLines from './SizeLines.vue'
import StepGhost from './StepGhost.vue'
import StepSizes from './StepSizes.vue'

/** One part, large: its numbers where they stand, steps dragged or moved by keys, things to measure from and between. */
const props = defineProps<{
  part: Part
  placing: ReturnType<typeof usePlacing>
  /** What a click on an edge or a point is for just now. */
  mode: '' | 'from' | 'measure'
  /** Named lengths that are looked at: the steps that follow them are lit. */
  lit: ReadonlySet<string>
}>()
const emit = defineEmits<{ from: [thing: Thing]; leave: [] }>()
const job = useJob()
const say = useSay()
const settings = useSettings()
const { onPick, onMenu } = usePicking()
const frame = useTemplateRef('frame')
const ORIGIN: Point = [0, 0]
const SIZES_PX = 92
const CLICK_PX = 4

const selected = computed(() => props.part.steps.find(({ id }) => id === job.picked.step) ?? null)
const first = computed(() => props.part.steps.find(({ on }) => on) ?? null)
/** The sizes of what the part starts from, and of the selected step. */
const sized = computed(() => {
  const steps = [first.value, selected.value].filter((one, i, all) => one && all.indexOf(one) === i)
  return steps.flatMap((step) => (step && !job.hidden.has(`${props.part.id}/${step.id}`) ? [step] : []))
})
/** Of each of those steps: together, so that none is written over another. */
function linesOf(at: (point: Point) => Point): SizeLine[][] {
  const all = sizeLines(sized.value.flatMap(({ sizes }) => sizes), ORIGIN, at) // prettier-ignore
  let next = 0
  return sized.value.map(({ sizes }) => all.slice(next, (next += sizes.length)))
}
const box = computed<Box>(() => props.part.box)

/** Findings with a place on this part. */
const rings = computed(
  () =>
  job.design!.findings.flatMap((one) =>
    one.part === props.part.id && one.place && !one.sheet
      ? [{ at: one.place, bad: one.severity === 'stop', says: one.why, key: `${one.code}${one.place.join()}`, field: one.field }]
      : [],
  ), // prettier-ignore
)

/** Steps before the selected one: what it can be measured from. */
const before = computed(() => {
  const ids = props.part.steps.map(({ id }) => id)
  return new Set(ids.slice(0, Math.max(ids.indexOf(job.picked.step), 0)))
})

const litSteps = computed(
  () =>
    new Set(
      props.part.steps
        .filter(({ follows }) => follows.names.some((name) => props.lit.has(name)))
        .map(({ id }) => id),
    ),
)

const things = ref<readonly Thing[]>([])
const measured = computed(() =>
  things.value.length === 2 ? between(things.value[0]!, things.value[1]!) : null,
)
watch([() => props.mode, () => props.part.id], () => (things.value = []))

function choose(thing: Thing): void {
  if (props.mode === 'from') emit('from', thing)
  else things.value = things.value.length === 1 ? [things.value[0]!, thing] : [thing]
}
const saysMeasured = computed(() => {
  if (props.mode !== 'measure') return ''
  const [a, b] = things.value
  if (!a) return 'Click two edges, corners or centres.'
  if (!b) return `From ${a.of.says} to …`
  const way = measured.value
  if (!way) return 'These two edges are not parallel: no one distance lies between them.'
  const parts =
    way.dx && way.dy ? ` (${say.length(Math.abs(way.dx))} across, ${say.length(Math.abs(way.dy))} up)` : ''
  return `${say.length(way.distance)} ${say.unit}${parts} from ${a.of.says} to ${b.of.says}`
})

const HELD: Record<FreeKey, (event: PointerEvent) => boolean> = {
  Alt: ({ altKey }) => altKey,
  Control: ({ ctrlKey, metaKey }) => ctrlKey || metaKey,
  Shift: ({ shiftKey }) => shiftKey,
}

let grip: { id: number; at: Point; begun: boolean } | null = null
let dragged = false
const stepAt = (target: EventTarget | null) =>
  (target as Element | null)?.closest?.<SVGElement>('[data-pick^="step:"]')?.dataset['pick'] ?? ''

/** A selected step is taken hold of; everything else moves the view. */
function down(event: PointerEvent): void {
  dragged = false
  if (event.button || props.mode || event.shiftKey || (event.target as Element).closest('.nodes')) return
  const pick = stepAt(event.target)
  const step = pick.split('/')[1]
  if (!step || !job.steps.includes(step)) return
  event.stopPropagation()
  grip = { id: event.pointerId, at: [event.clientX, event.clientY], begun: false }
  ;(event.target as Element).setPointerCapture(event.pointerId)
}

function move(event: PointerEvent): void {
  if (grip?.id !== event.pointerId) return
  event.stopPropagation()
  const [x, y] = [event.clientX - grip.at[0], grip.at[1] - event.clientY]
  if (!grip.begun) {
    if (Math.hypot(x, y) < CLICK_PX || !props.placing.begin()) return
    grip.begun = true
  }
  const scale = frame.value!.view.scale
  props.placing.dragTo(x / scale, y / scale, scale, HELD[settings.freeKey](event))
}

function up(event: PointerEvent): void {
  if (grip?.id !== event.pointerId) return
  event.stopPropagation()
  dragged = grip.begun
  if (grip.begun) void props.placing.drop()
  grip = null
}

/** Shift adds to the selection; the click that ends a drag is none. */
function click(event: MouseEvent): void {
  if (dragged) {
    dragged = false
    event.stopPropagation()
    return
  }
  const step = stepAt(event.target).split('/')[1]
  if (event.shiftKey && step) {
    event.stopPropagation()
    job.pickMore(props.part.id, step)
  }
}

const ARROWS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
}
/** With steps selected, arrow keys move them. */
function key(event: KeyboardEvent): void {
  if ((event.target as Element).closest('input, .nodes')) return
  const way = ARROWS[event.key]
  if (way && job.steps.length && !event.ctrlKey && !event.metaKey && !event.altKey) {
    event.preventDefault()
    event.stopPropagation()
    const times = event.shiftKey ? 10 : 1
    props.placing.nudge(way[0] * times, way[1] * times)
  }
}
useEventListener(window, 'keydown', (event) => {
  if (event.key !== 'Escape') return
  if (grip?.begun) {
    grip = null
    dragged = true
    props.placing.cancel()
    event.stopImmediatePropagation()
  } else if (props.mode) {
    emit('leave')
    event.stopImmediatePropagation()
  }
}, { capture: true }) // prettier-ignore

/** Who came here by key goes on by key: what was focused is not there any more. */
const root = useTemplateRef<HTMLElement>('root')
onMounted(async () => {
  await nextTick()
  if (document.activeElement === document.body)
    root.value?.querySelector<SVGElement>('.part')?.focus({ preventScroll: true })
})

const movingBox = computed<Box | null>(() => {
  const still = round(
    props.part.steps.flatMap(({ id, box: one }) => (one && job.steps.includes(id) ? [one] : [])),
  )
  if (!still) return null
  const [dx, dy] = props.placing.delta.value
  return [still[0] + dx, still[1] + dy, still[2] + dx, still[3] + dy]
})

/** What was asked for on a size line opens there. */
const opened = ref('')
async function open(path: string): Promise<void> {
  opened.value = path
  await nextTick()
  await nextTick()
  opened.value = ''
}
defineExpose({ open, lookAt: (at: Box) => frame.value?.lookAt(at) })
/** What was refused of the selected step's outline: said where it was done. */
const refused = computed(() => {
  const problem = selected.value?.nodes.length
    ? job.problemAt(`parts/${props.part.id}/steps/${selected.value.id}/shape/nodes`)
    : null
  return problem ? say.sentence(`${problem.why} ${problem.fix}`) : ''
})
const fieldOf = (path: string) => path.split('/')[3] ?? ''
</script>

<template>
  <div
    ref="root"
    class="canvas"
    :class="{ picking: mode }"
    @pointerdown.capture="down"
    @pointermove.capture="move"
    @pointerup.capture="up"
    @pointercancel.capture="up"
    @click.capture="click"
    @keydown.capture="key"
  >
    <DrawingFrame
      ref="frame"
      :box="box"
      :label="`${part.title}, flat`"
      :padding="SIZES_PX"
      @pick="onPick"
      @menu="onMenu"
    >
      <template #default>
        <PartPiece :part="part" transform="" alone :lit="litSteps" />
      </template>
      <template #over="{ at, pxPerMm }">
        <g
          v-if="placing.moving.value"
          :transform="`translate(${at(ORIGIN).join(' ')}) scale(${pxPerMm} ${-pxPerMm})`"
        >
          <StepGhost
            :part="part"
            :steps="job.steps"
            :delta="placing.delta"
            :exact="placing.exact.value?.tried.paths[part.id] ?? ''"
          />
        </g>
        <FoundLines
          v-if="placing.moving.value && placing.found.value && movingBox"
          :found="placing.found.value"
          :box="movingBox"
          :around="box"
          :at="at"
        />
        <SizeLines v-if="!placing.moving.value && !mode" :lines="linesOf(at).flat()" />
        <g
          v-for="ring in rings"
          :key="ring.key"
          class="ring"
          :class="{ bad: ring.bad }"
          :data-pick="fieldOf(ring.field) ? `step:${part.id}/${fieldOf(ring.field)}` : undefined"
        >
          <title>{{ say.sentence(ring.says) }}</title>
          <circle :cx="at(ring.at)[0]" :cy="at(ring.at)[1]" r="12" />
        </g>
        <OutlineNodes
          v-if="selected?.nodes.length && job.steps.length === 1 && !mode && !placing.moving.value"
          :part="part"
          :step="selected"
          :at="at"
          :px-per-mm="pxPerMm"
        />
        <PickTargets
          v-if="mode"
          :part="part"
          v-bind="mode === 'from' ? { from: before } : {}"
          :chosen="things.map(({ of }) => of.name)"
          :at="at"
          @choose="choose"
        />
        <path
          v-if="measured"
          class="measured"
          :d="`M${at(measured.from).join(' ')}L${at(measured.to).join(' ')}`"
        />
      </template>
      <template #fields="{ at }">
        <template v-if="!placing.moving.value && !mode">
          <StepSizes
            v-for="(step, i) in sized"
            :key="step.id"
            :part="part"
            :step="step"
            :lines="linesOf(at)[i]!"
            :opened="step === selected ? opened : ''"
          />
        </template>
        <p v-if="refused" class="said bad" role="alert">{{ refused }}</p>
        <p v-else-if="placing.said.value || saysMeasured" class="said" role="status">
          {{ saysMeasured || placing.said.value }}
        </p>
      </template>
    </DrawingFrame>
  </div>
</template>

<style scoped>
.canvas {
  display: grid;
  min-height: 0;
}
.ring circle {
  fill: none;
  stroke: var(--ochre);
  stroke-width: 2;
  pointer-events: all;
  cursor: pointer;
}
.ring.bad circle {
  stroke: var(--bad);
}
.measured {
  stroke: var(--ink);
  stroke-width: 2;
  pointer-events: none;
}
.said {
  position: absolute;
  left: 50%;
  bottom: 48px;
  max-width: calc(100% - 40px);
  padding: 4px 12px;
  transform: translateX(-50%);
  background: var(--panel);
  border: 1px solid var(--deep);
}
.picking :deep(.part),
.picking :deep(.hit),
.picking :deep(.side) {
  pointer-events: none;
}
</style>
