<script setup lang="ts">
import { computed } from 'vue'

import { onPicture, type Camera } from '../geometry/raster'
import { along } from '../geometry/solids'
import { triple, type Triple } from '../geometry/standing'
import { textWidth } from '../composables/textWidth'
import { overlap, scaleBar, type Box, type Point } from '../geometry/view'
import { MM_PER_INCH } from '../units'
import type { Stood } from '../composables/useSolids'
import { useSay } from '../composables/useSay'
import { pickOf } from '../stores/selection'
import { useJob } from '../stores/job'
import { useGhosts } from '../composables/useGhosts'
import { useTried } from '../composables/useTried'
import SizeField from './SizeField.vue'

/** What is drawn and picked over the solids: sizes, joints, findings, names, a scale along each edge. */
const props = defineProps<{
  bodies: readonly Stood[]
  offs: readonly Triple[]
  box: { low: Triple; high: Triple }
  middle: Triple
  camera: Camera
  width: number
  height: number
  names: boolean
  /** Drawn apart, or cut through: then lengths of the whole say nothing. */
  apart: boolean
  cut: boolean
  /** Of what was cut no size is typed. */
  measured: boolean
  marks: readonly { key: string; place: Triple; says: string; strong?: boolean }[]
}>()
const emit = defineEmits<{ mark: [key: string] }>()
const job = useJob()
const say = useSay()
const { tried, ask, forget, outcome, valueAt, problemAt } = useTried()
const titles = computed(() => new Map(job.design!.parts.map(({ id, title }) => [id, title])))
const axes = computed(() => props.camera.axes)

const at = (place: Triple) => onPicture(place, props.camera)
/** A board where it would stand: its face, and its thickness on the side on which it lies. */
const { ghosts } = useGhosts()
const would = computed(() =>
  ghosts.value.map(({ placement, corners }) => {
    const [a, b, c, d, ...behind] = corners.map((one) => at(one).join(' '))
    const face = [a, b, c, d]
    const ring = (some: readonly (string | undefined)[]) => `M${some.join('L')}Z`
    return {
      placement,
      face: ring(face),
      rest: ring(behind) + face.map((one, i) => `M${one}L${behind[i]}`).join(''),
    }
  }),
)
/** Where each joint runs, half-way into the boards. */
const joints = computed(() =>
  job.design!.mates.map((mate) => ({ mate, from: at(mate.start), to: at(mate.end) })),
) // prettier-ignore
const findings = computed(() => {
  const found = job.fresh ? job.fresh.findings : job.design!.findings
  return found.flatMap((one) => (one.space ? [{ ...one, at: at(one.space) }] : []))
})
const labels = computed(() => {
  if (!props.names) return []
  return props.bodies.map(({ placement, part, solid }, i) => ({
    key: placement,
    text: titles.value.get(part) ?? part,
    at: at(triple((axis) => solid.middle[axis]! + props.offs[i]![axis]!)),
  }))
})

/** The whole from end to end, along the edges that are nearest to the eye and lowest. */
const sizes = computed(() => {
  const { low, high } = props.box
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
    const centre = at(props.middle)
    const mid = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2] as const
    let out = [(b[1] - a[1]) / long, -(b[0] - a[0]) / long] as const
    if ((mid[0] - centre[0]) * out[0] + (mid[1] - centre[1]) * out[1] < 0) out = [-out[0], -out[1]]
    const by = (p: readonly [number, number], d: number) => [p[0] + out[0] * d, p[1] + out[1] * d] as const
    return [{ key, mm, a: by(a, 14), b: by(b, 14), feet: [a, by(a, 19), b, by(b, 19)] as const, text: by(mid, 30) }]
  })
}) // prettier-ignore

const FIELD_PX = 30
const TOOLS_PX = 44
/** Where a field of that width stands: inside the picture, and clear of those that stand already. */
function apartFrom(taken: Box[], [x, y]: Point, wide: number): Point {
  const middle = Math.min(Math.max(x, wide / 2 + 4), Math.max(props.width - wide / 2 - 4, wide / 2 + 4))
  const boxAt = (top: number): Box => [middle - wide / 2, top, middle + wide / 2, top + FIELD_PX]
  const ways = [0, 1, -1, 2, -2, 3].map((row) => y - FIELD_PX / 2 + row * FIELD_PX)
  const free = (box: Box) => !taken.some((other) => overlap(box, other))
  const low = props.height - TOOLS_PX - FIELD_PX
  const top = ways.find((one) => one <= low && free(boxAt(one))) ?? Math.min(ways[0]!, low)
  taken.push(boxAt(top))
  return [middle, top + FIELD_PX / 2]
}

/** The lengths that were chosen for the whole's sizes open for editing beside them. */
const chosenSizes = computed(() => {
  const lengths = new Map(job.design!.lengths.map((one) => [one.name, one]))
  const taken: Box[] = []
  const drawn = (one: (typeof sizes.value)[number]): Box => {
    const half = textWidth(say.length(one.mm)) / 2
    return [one.text[0] - half, one.text[1] - 8, one.text[0] + half, one.text[1] + 10]
  }
  return (props.apart || props.cut || props.measured ? [] : sizes.value).flatMap((size) => {
    const own = lengths.get(size.key)
    const [inside, outside] = [lengths.get(`inside_${size.key}`), lengths.get(`outside_${size.key}`)]
    if (!own || own.source !== 'chosen' || own.value == null) return []
    const says = inside?.value === own.value ? 'inside' : outside?.value === own.value ? 'outside' : own.title
    const field = own.field || `dimensions/${own.name}/length`
    const whole = Math.abs(size.mm - own.value) < 1e-6
    if (!whole) taken.push(drawn(size))
    const wide = textWidth(say.length(own.value)) + textWidth(says) + 56
    return [
      {
        ...size,
        own,
        says,
        field,
        whole,
        at: apartFrom(taken, [size.text[0], size.text[1] + (whole ? 0 : 24)], wide),
      },
    ]
  })
})

const bar = computed(() => {
  const { length, px } = scaleBar(props.camera.scale * (say.unit === 'in' ? MM_PER_INCH : 1), 120)
  const mm = length * (say.unit === 'in' ? MM_PER_INCH : 1)
  const legs = ([[1, 0, 0], [0, 1, 0], [0, 0, 1]] as Triple[]).map((way) => [along(way, axes.value.right) * mm * props.camera.scale, -along(way, axes.value.up) * mm * props.camera.scale] as const) // prettier-ignore
  return { px, legs, text: `${say.number(length, 6, 0)} ${say.unit} along each edge` }
})
const fromBelow = computed(() => Math.max(0, ...bar.value.legs.map(([, y]) => y)))
const leftOf = computed(() => Math.min(0, ...bar.value.legs.map(([x]) => x)))
</script>

<template>
  <svg :width="width" :height="height">
    <g v-for="one in would" :key="one.placement" class="would">
      <path class="rest" :d="one.rest" />
      <path :d="one.face" />
    </g>
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
      <g v-for="mark in marks" :key="mark.key" class="mark" :class="{ strong: mark.strong }">
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
    <g class="bar" :transform="`translate(${20 - leftOf} ${height - 32 - fromBelow})`">
      <path v-for="(leg, i) in bar.legs" :key="i" :d="`M0 0L${leg.join(' ')}`" />
      <text class="figure small" :x="leftOf" :y="fromBelow + 20">{{ bar.text }}</text>
    </g>
  </svg>
  <SizeField
    v-for="one in chosenSizes"
    :key="one.key"
    :at="one.at"
    :label="`${one.own.title} ${one.says}`"
    :value="valueAt(one.field) ?? one.own.value!"
    :was="tried?.path === one.field ? (one.own.value ?? null) : null"
    :outcome="outcome()"
    :text="say.edit(one.own.text, one.own.unit)"
    :chosen="true"
    :says="one.says"
    :problem="problemAt(one.field) ?? job.problemAt(one.field)"
    @draft="ask(one.field, $event)"
    @keep="(forget(), job.put(one.field, $event))"
    @leave="forget"
  />
</template>

<style scoped>
.would path {
  fill: color-mix(in srgb, var(--deep) 14%, transparent);
  stroke: var(--deep);
  stroke-width: 1.5;
}
.would .rest {
  fill: none;
  stroke-dasharray: 4 3;
}
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
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
</style>
