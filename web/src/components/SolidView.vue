<script setup lang="ts">
import { useDevicePixelRatio, useElementSize } from '@vueuse/core'
import { computed, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue'

import { Raster, onPicture, type Camera, type Drawn, type Section } from '../geometry/raster'
import { along, boxOnPicture, even, solidOf, type Solid } from '../geometry/solids'
import type { Triple } from '../geometry/standing'
import { scaleBar } from '../geometry/view'
import { MM_PER_INCH } from '../units'
import { useSay } from '../composables/useSay'
import { VIEWS, useTurning } from '../composables/useTurning'
import ChoiceWord from '../kit/ChoiceWord.vue'
import { pickOf } from '../stores/selection'
import { useJob } from '../stores/job'
import SizeField from './SizeField.vue'
import { useSettings } from '../stores/settings'

/** The parts as solids where they stand, to be turned, drawn apart and cut through; parts and joints are picked here. */
const props = defineProps<{
  /** Places to point at: proposals, for instance. */
  marks?: readonly { key: string; place: Triple; says: string; strong?: boolean }[]
}>()
const emit = defineEmits<{ mark: [key: string] }>()
const job = useJob()
const say = useSay()
const settings = useSettings()
const frame = useTemplateRef('frame')
const canvas = useTemplateRef('canvas')
const { width, height } = useElementSize(frame)
const { pixelRatio } = useDevicePixelRatio()
const apart = ref(0)
const cut = ref(0)
const cutAlong = ref<'x' | 'y' | 'z'>('y')
const names = ref(false)
const view = ref('From a corner')
let raster: Raster | null = null

const turning = useTurning(frame, (x, y) => {
  const own = bodies.value[raster?.at(x * density.value, y * density.value) ?? -1]
  if (own) job.toggle('part', own.part)
  else job.selected = ''
})
const { axes, zoomed, shift, moving } = turning
watch(turning.eye, (eye) => {
  view.value =
    Object.entries(VIEWS).find(([, one]) => one.turn === eye.turn && one.tilt === eye.tilt)?.[0] ?? ''
})

const density = computed(() => (moving.value ? 1 : Math.max(2, Math.min(3, pixelRatio.value))))
const titles = computed(() => new Map(job.design!.parts.map(({ id, title }) => [id, title])))
const clear = computed(
  () => new Set(job.design!.boards.filter(({ basis }) => basis.stock.kind === 'acrylic').map(({ id }) => id)),
)

/** A part that is where it was keeps its solid. */
const known = new Map<string, { of: unknown; at: string; solid: Solid }>()
const bodies = computed(() => {
  const parts = new Map(job.design!.parts.map((part) => [part.id, part]))
  return job.design!.standings.flatMap((standing) => {
    const part = parts.get(standing.part)
    if (!part || job.hidden.has(part.id)) return []
    const at = JSON.stringify([standing.origin, standing.u, standing.v, standing.n])
    const before = known.get(standing.placement)
    const solid =
      before?.of === part.outline && before.at === at
        ? before.solid
        : solidOf({ ...standing, ...(part.solid ?? even([part.outline, ...part.holes], part.thickness)) })
    known.set(standing.placement, { of: part.outline, at, solid })
    return [{ placement: standing.placement, part: part.id, board: part.board, solid, n: standing.n }]
  })
})

const box = computed(() => {
  let [low, high]: [number[], number[]] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ]
  for (const { solid } of bodies.value) {
    for (let i = 0; i < solid.edges.length; i++) {
      low[i % 3] = Math.min(low[i % 3]!, solid.edges[i]!)
      high[i % 3] = Math.max(high[i % 3]!, solid.edges[i]!)
    }
  }
  if (!bodies.value.length) [low, high] = [[0, 0, 0], [1, 1, 1]] // prettier-ignore
  return { low: low as unknown as Triple, high: high as unknown as Triple }
})
/** Its sizes stand along these. */
const corners = computed(() => {
  const { low, high } = box.value
  const ends = [low, high]
  return ends.flatMap(([x]) => ends.flatMap(([, y]) => ends.map(([, , z]) => [x, y, z] as Triple)))
})
const middle = computed(
  () => box.value.low.map((one, i) => (one + box.value.high[i]!) / 2) as unknown as Triple,
)

/** Drawn apart, every part goes away from the middle. */
const offs = computed(() =>
  bodies.value.map(({ solid }) => {
    const share = (apart.value / 100) * 0.9
    return solid.middle.map((one, i) => (one - middle.value[i]!) * share) as unknown as Triple
  }),
)

const selected = computed(() => {
  const mate = job.design!.mates.find(({ id }) => id === job.picked.joint)
  return new Set(mate ? [mate.first.placement, mate.second.placement] : [])
})

function colour(name: string): number {
  const text = getComputedStyle(frame.value!).getPropertyValue(name).trim()
  return parseInt(text.slice(1), 16)
}
function shade(rgb: number, by: number): number {
  const part = (at: number) => Math.max(0, Math.min(255, Math.round(((rgb >> at) & 0xff) * by))) << at
  return part(16) | part(8) | part(0)
}

const palette = shallowRef<Record<string, number> | null>(null)
function readColours(): void {
  palette.value = Object.fromEntries(['board', 'end-grain', 'ink', 'deep', 'deep-wash', 'ochre', 'glass'].map((name) => [name, colour(`--${name}`)])) // prettier-ignore
}
onMounted(readColours)
watch(() => settings.theme, () => setTimeout(readColours)) // prettier-ignore

const drawn = computed<Drawn[]>(() => {
  const own = palette.value
  if (!own) return []
  return bodies.value.map(({ part, placement, board, solid, n }, i) => {
    const lit = selected.value.has(placement) || job.picked.part === part
    const glass = clear.value.has(board)
    const face = own[lit ? 'deep-wash' : glass ? 'glass' : 'board']!
    // The light comes from above and a little from the left.
    const by = 0.9 + 0.1 * Math.abs(n[2]) - 0.04 * Math.abs(n[0])
    return {
      solid,
      off: offs.value[i]!,
      face: shade(face, by),
      side: shade(lit ? face : glass ? face : own['end-grain']!, 0.94),
      cut: own[lit ? 'deep' : 'ochre']!,
      line: own[lit ? 'deep' : 'ink']!,
      clear: glass && !lit,
    }
  })
})

const camera = computed<Camera>(() => {
  const all = bodies.value.map(({ solid }, i) => ({ solid, off: offs.value[i]! }))
  let [left, low, right, high] = boxOnPicture(all, axes.value)
  for (const corner of apart.value ? [] : corners.value) {
    const [a, b] = [along(corner, axes.value.right), along(corner, axes.value.up)]
    ;[left, right] = [Math.min(left, a), Math.max(right, a)]
    ;[low, high] = [Math.min(low, b), Math.max(high, b)]
  }
  const room = [Math.max(width.value - 190, 50), Math.max(height.value - 150, 50)] as const
  const fitting = Math.min(room[0] / (right - left || 1), room[1] / (high - low || 1))
  const scale = fitting * zoomed.value
  const x = width.value / 2 - ((left + right) / 2) * scale + shift.value[0]
  const y = height.value / 2 - 6 + ((low + high) / 2) * scale + shift.value[1]
  return { axes: axes.value, scale, x, y }
})

/** The cut goes through the whole from the side that is nearer to the eye. */
const section = computed<Section | null>(() => {
  if (!cut.value) return null
  const i = 'xyz'.indexOf(cutAlong.value)
  const unit = [0, 0, 0]
  unit[i] = axes.value.near[i]! < 0 ? -1 : 1
  const way = unit as unknown as Triple
  const ends = [box.value.low[i]! * unit[i]!, box.value.high[i]! * unit[i]!]
  const [from, to] = [Math.max(...ends), Math.min(...ends)]
  return { way, at: from + (to - from) * (cut.value / 100) * 0.98 }
})

function paint(): void {
  const element = canvas.value
  if (!element || !width.value || !drawn.value.length) {
    element?.getContext('2d')?.clearRect(0, 0, element.width, element.height)
    return
  }
  const [w, h] = [Math.round(width.value * density.value), Math.round(height.value * density.value)]
  if (raster?.width !== w || raster.height !== h) raster = new Raster(w, h)
  if (element.width !== w) element.width = w
  if (element.height !== h) element.height = h
  const { axes: own, scale, x, y } = camera.value
  raster.draw(drawn.value, { axes: own, scale: scale * density.value, x: x * density.value, y: y * density.value, pen: Math.round(density.value) }, section.value) // prettier-ignore
  const bytes = new Uint8ClampedArray(raster.pixels.buffer as ArrayBuffer)
  element.getContext('2d')!.putImageData(new ImageData(bytes, w, h), 0, 0)
}
let asked = false
function repaint(): void {
  if (asked) return
  asked = true
  requestAnimationFrame(() => {
    asked = false
    paint()
  })
}
watch([drawn, camera, section, density], repaint, { flush: 'post' })
onMounted(repaint)

const at = (place: Triple) => onPicture(place, camera.value)
/** Where each joint runs, half-way into the boards. */
const joints = computed(() =>
  job.design!.mates.map((mate) => ({ mate, from: at(mate.start as unknown as Triple), to: at(mate.end as unknown as Triple) })),
) // prettier-ignore
const findings = computed(() => {
  const found = job.fresh ? job.fresh.findings : job.design!.findings
  return found.flatMap((one) => (one.space ? [{ ...one, at: at(one.space as unknown as Triple) }] : []))
})
const labels = computed(() => {
  if (!names.value) return []
  return bodies.value.map(({ placement, part, solid }, i) => ({
    key: placement,
    text: titles.value.get(part) ?? part,
    at: at(solid.middle.map((one, k) => one + offs.value[i]![k]!) as unknown as Triple),
  }))
})

/** The whole from end to end, along the edges that are nearest to the eye and lowest. */
const sizes = computed(() => {
  const { low, high } = box.value
  const near = axes.value.near
  const corner = (x: boolean, y: boolean, z: boolean): Triple => [x ? high[0] : low[0], y ? high[1] : low[1], z ? high[2] : low[2]] // prettier-ignore
  const [right, back] = [near[0] > 0, near[1] > 0]
  const below = near[2] < 0
  return [
    { key: 'width', mm: high[0] - low[0], from: corner(false, back, below), to: corner(true, back, below) },
    { key: 'depth', mm: high[1] - low[1], from: corner(right, false, below), to: corner(right, true, below) },
    { key: 'height', mm: high[2] - low[2], from: corner(right, !back, false), to: corner(right, !back, true) },
  ].flatMap(({ key, mm, from, to }) => {
    const [a, b] = [at(from), at(to)]
    const long = Math.hypot(b[0] - a[0], b[1] - a[1])
    if (long < 36) return []
    const centre = at(middle.value)
    const mid = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2] as const
    let out = [(b[1] - a[1]) / long, -(b[0] - a[0]) / long] as const
    if ((mid[0] - centre[0]) * out[0] + (mid[1] - centre[1]) * out[1] < 0) out = [-out[0], -out[1]]
    const by = (p: readonly [number, number], d: number) => [p[0] + out[0] * d, p[1] + out[1] * d] as const
    return [{ key, mm, a: by(a, 14), b: by(b, 14), feet: [a, by(a, 19), b, by(b, 19)] as const, text: by(mid, 30) }]
  })
}) // prettier-ignore

/** The lengths that were chosen for the whole's sizes open for editing beside them. */
const chosenSizes = computed(() => {
  const lengths = new Map(job.design!.lengths.map((one) => [one.name, one]))
  return (apart.value || cut.value ? [] : sizes.value).flatMap((size) => {
    const own = lengths.get(size.key)
    const [inside, outside] = [lengths.get(`inside_${size.key}`), lengths.get(`outside_${size.key}`)]
    if (!own || own.source !== 'chosen' || own.value == null) return []
    const says = inside?.value === own.value ? 'inside' : outside?.value === own.value ? 'outside' : own.title
    const field = own.field || `dimensions/${own.name}/length`
    const whole = Math.abs(size.mm - own.value) < 1e-6
    return [
      { ...size, own, says, field, whole, at: [size.text[0], size.text[1] + (whole ? 0 : 24)] as const },
    ]
  })
})

const bar = computed(() => {
  const { length, px } = scaleBar(camera.value.scale * (say.unit === 'in' ? MM_PER_INCH : 1), 120)
  const mm = length * (say.unit === 'in' ? MM_PER_INCH : 1)
  const legs = ([[1, 0, 0], [0, 1, 0], [0, 0, 1]] as Triple[]).map((way) => [along(way, axes.value.right) * mm * camera.value.scale, -along(way, axes.value.up) * mm * camera.value.scale] as const) // prettier-ignore
  return { px, legs, text: `${say.number(length, 6, 0)} ${say.unit} along each edge` }
})
const fromBelow = computed(() => Math.max(0, ...bar.value.legs.map(([, y]) => y)))
const wide = computed(() => Math.max(0, ...bar.value.legs.map(([x]) => x)))
const leftOf = computed(() => Math.min(0, ...bar.value.legs.map(([x]) => x)))
</script>

<template>
  <div
    ref="frame"
    class="solid"
    tabindex="0"
    role="group"
    aria-label="Assembled. Arrow keys turn it, plus and minus zoom, 0 shows all."
    @keydown.self="turning.onKey"
  >
    <canvas ref="canvas" aria-hidden="true" />
    <svg class="over" :width="width" :height="height">
      <g v-for="one in apart || cut ? [] : sizes" :key="one.key" class="size">
        <path
          :d="`M${one.feet[0].join(' ')}L${one.feet[1].join(' ')}M${one.feet[2].join(' ')}L${one.feet[3].join(' ')}`"
        />
        <path class="line" :d="`M${one.a.join(' ')}L${one.b.join(' ')}`" />
        <text
          v-if="!chosenSizes.some((own) => own.key === one.key && own.whole)"
          class="figure"
          :x="one.text[0]"
          :y="one.text[1] + 5"
          :data-size="one.key"
        >
          {{ say.length(one.mm) }}
        </text>
      </g>
      <template v-if="!apart">
        <line
          v-for="{ mate, from, to } in joints"
          :key="mate.id"
          class="joint"
          :class="{ selected: job.picked.joint === mate.id }"
          :x1="from[0]"
          :y1="from[1]"
          :x2="to[0]"
          :y2="to[1]"
          :data-pick="pickOf('joint', mate.id)"
          tabindex="0"
          role="button"
          :aria-label="`Joint: ${mate.title}`"
          :aria-pressed="job.picked.joint === mate.id"
          @click="job.toggle('joint', mate.id)"
          @keydown.enter="job.toggle('joint', mate.id)"
        />
        <g v-for="(finding, i) in findings" :key="`finding-${i}`" :class="finding.severity">
          <title>{{ say.sentence(finding.why) }}</title>
          <circle :cx="finding.at[0]" :cy="finding.at[1]" r="9" />
        </g>
        <g v-for="mark in props.marks ?? []" :key="mark.key" class="mark" :class="{ strong: mark.strong }">
          <title>{{ mark.says }}</title>
          <circle
            :cx="at(mark.place)[0]"
            :cy="at(mark.place)[1]"
            r="7"
            data-pick="mark"
            @click="emit('mark', mark.key)"
          />
        </g>
      </template>
      <text v-for="one in labels" :key="one.key" class="name small" :x="one.at[0]" :y="one.at[1]">
        {{ one.text }}
      </text>
      <g class="bar" :transform="`translate(${20 - leftOf} ${height - 22 - fromBelow})`">
        <path v-for="(leg, i) in bar.legs" :key="i" :d="`M0 0L${leg.join(' ')}`" />
        <text class="figure small" :x="wide + 10" :y="fromBelow">{{ bar.text }}</text>
      </g>
    </svg>
    <SizeField
      v-for="one in chosenSizes"
      :key="one.key"
      :at="one.at"
      :label="`${one.own.title} ${one.says}`"
      :value="one.own.value!"
      :text="say.edit(one.own.text, one.own.unit)"
      :chosen="true"
      :says="one.says"
      :problem="job.problemAt(one.field)"
      @keep="job.put(one.field, $event)"
    />
    <div class="tools small">
      <ChoiceWord
        label="View"
        :options="Object.keys(VIEWS).map((value) => ({ value, label: value }))"
        :model-value="view || 'Turned'"
        @update:model-value="turning.look(VIEWS[$event]!)"
      />
      <label><input v-model="names" type="checkbox" /> Names</label>
      <span class="slide">
        <span aria-hidden="true">Apart</span>
        <ElSlider v-model="apart" aria-label="How far apart" size="small" :show-tooltip="false" />
      </span>
      <span class="slide">
        <span aria-hidden="true">Cut</span>
        <ElSlider v-model="cut" aria-label="How far it is cut through" size="small" :show-tooltip="false" />
      </span>
      <ElSegmented
        v-if="cut"
        v-model="cutAlong"
        size="small"
        aria-label="Cut from"
        :options="[
          { value: 'y', label: 'front' },
          { value: 'x', label: 'side' },
          { value: 'z', label: 'top' },
        ]"
      />
    </div>
    <div class="zoom">
      <ElButton size="small" aria-label="Zoom out" @click="turning.zoom(1 / 1.6)">−</ElButton>
      <ElButton size="small" aria-label="Zoom in" @click="turning.zoom(1.6)">+</ElButton>
      <ElButton size="small" @click="turning.showAll">Show all</ElButton>
    </div>
  </div>
</template>

<style scoped>
.solid {
  position: relative;
  min-height: 0;
  overflow: hidden;
  background: var(--sheet);
  touch-action: none;
  cursor: grab;
}
.solid:focus-visible {
  outline-offset: -3px;
}
canvas,
.over {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.over {
  pointer-events: none;
  user-select: none;
}
.size path {
  fill: none;
  stroke: var(--edge);
}
.size .line {
  stroke: var(--second);
}
text {
  fill: var(--ink);
  text-anchor: middle;
  paint-order: stroke;
  stroke: var(--sheet);
  stroke-width: 4px;
}
.bar text {
  text-anchor: start;
}
.bar path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.5;
}
.joint {
  stroke: transparent;
  stroke-width: 10;
  stroke-linecap: round;
  pointer-events: stroke;
  cursor: pointer;
}
.joint:hover,
.joint:focus-visible {
  stroke: color-mix(in srgb, var(--deep) 35%, transparent);
}
.joint.selected {
  stroke: color-mix(in srgb, var(--deep) 50%, transparent);
}
circle {
  fill: transparent;
  stroke: var(--ochre);
  stroke-width: 2;
}
.stop circle {
  stroke: var(--bad);
}
.mark circle {
  stroke: var(--ink);
  stroke-dasharray: 2 3;
  fill: color-mix(in srgb, var(--sheet) 60%, transparent);
  pointer-events: all;
  cursor: pointer;
}
.mark.strong circle {
  stroke: var(--ochre);
  stroke-dasharray: none;
}
.tools {
  position: absolute;
  left: 22px;
  top: 10px;
  right: 22px;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 22px;
  align-items: center;
  color: var(--second);
  cursor: default;
}
.tools label {
  display: flex;
  gap: 6px;
  align-items: center;
  min-height: 28px;
}
.slide {
  display: flex;
  gap: 12px;
  align-items: center;
}
.slide :deep(.el-slider) {
  width: 7rem;
}
.zoom {
  position: absolute;
  right: 14px;
  bottom: 10px;
}
</style>
