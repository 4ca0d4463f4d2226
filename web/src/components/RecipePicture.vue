<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, useId, useTemplateRef } from 'vue'

import type { Problem, RecipeView } from '../api/client'
import { snapped } from '../geometry/following'
import { onScreen, recipePicture, type PlacedView, type Size } from '../geometry/recipePicture'
import { scaleBar, type Point } from '../geometry/view'
import { MM_PER_INCH } from '../units'
import { useSay } from '../composables/useSay'
import { useSizeTexts } from '../composables/useSizeTexts'
import ArrowHead from './ArrowHead.vue'
import SizeField from './SizeField.vue'

/** A recipe's drawing to scale, one view below the other, its sizes on it: typed there, dragged at the handles, or moved by arrow
 * keys. */
const props = defineProps<{
  views: readonly RecipeView[]
  before: readonly RecipeView[] | null
  texts: Readonly<Record<string, string>>
  titles: Readonly<Record<string, string>>
  problemAt: (setting: string) => Problem | null
}>()
const emit = defineEmits<{
  begin: []
  drag: [setting: string, mm: number]
  drop: [setting: string, mm: number]
  answer: [setting: string, text: string]
  track: [act: 'add' | 'remove', side: 'columns' | 'rows', entry: number]
}>()
const say = useSay()
const frame = useTemplateRef('frame')
const arrow = useId()
const { width, height } = useElementSize(frame)

const held = ref<number | null>(null)
const picture = computed(() =>
  recipePicture(props.views, { width: width.value, height: height.value }, held.value),
)
const scale = computed(() => picture.value.scale)
const placed = computed(() => picture.value.places)
const px = (place: PlacedView, at: Point) => onScreen(place, scale.value, at)

/** An outline of x and y in turn, as a path on the screen. */
function outlined(place: PlacedView, outline: readonly number[]): string {
  let path = ''
  for (let i = 0; i < outline.length; i += 2) {
    const [x, y] = px(place, [outline[i]!, outline[i + 1]!])
    path += `${i ? 'L' : 'M'}${x.toFixed(2)} ${y.toFixed(2)}`
  }
  return `${path}Z`
}

const all = computed(() =>
  picture.value.sizes.map((one) => ({
    ...one,
    was: one.size.typed ? null : (before(Number(one.key.split('-')[0]), one.size)?.value ?? null),
  })),
)
/** The same size of the drawing before: others may have come between. */
function before(view: number, size: Size): Size | undefined {
  const same = (one: Size) =>
    one.setting === size.setting && one.says === size.says && one.side === size.side && one.row === size.row
  return props.before?.[view]?.sizes.find(same)
}
const { TRACKS, listWith, textOf, begin, answer, keep, entryOf, trackOf, entriesOf } = useSizeTexts(props, {
  begin: () => emit('begin'),
  answer: (setting, text) => emit('answer', setting, text),
  remove: (side, entry) => emit('track', 'remove', side, entry),
})

function labelOf(size: Size): string {
  const number = size.typed ? ` ${entriesOf(size.setting).indexOf(size) + 1}` : ''
  return `${props.titles[size.setting] ?? ''}${number} ${size.says}`.trim()
}

/** A piece of wall is taken out, or put back. */
function toggle(piece: string): void {
  const taken = (props.texts['without'] ?? '').split(/[\s,]+/).filter(Boolean)
  const next = taken.includes(piece) ? taken.filter((one) => one !== piece) : [...taken, piece]
  emit('begin')
  emit('answer', 'without', next.join(' '))
}

const handles = computed(() =>
  placed.value.flatMap((place) =>
    place.view.handles.map((handle) => ({ handle, at: px(place, handle.at as [number, number]) })),
  ),
)
const bar = computed(() => {
  const { length, px: long } = scaleBar(scale.value * (say.unit === 'in' ? MM_PER_INCH : 1), 150)
  return { long, text: `${say.number(length, 6, 0)} ${say.unit}` }
})

const STEP = computed(() => (say.unit === 'in' ? MM_PER_INCH / 16 : 1))
/** With the key held, a tenth of the grid. */
const stepOf = (event: { altKey: boolean }) => (event.altKey ? STEP.value / 10 : STEP.value)
function valueOf(setting: string, entry = -1): number {
  const own = all.value.filter(({ size }) => size.setting === setting && (entry < 0 || size.typed))
  return own[Math.max(entry, 0)]?.size.value ?? 0
}

type Handle = RecipeView['handles'][number]
/** A click that moves nothing changes nothing. */
const STILL_PX = 3
let grip: {
  setting: string
  entry: number
  along: 'x' | 'y'
  from: number
  start: number
  moved: boolean
} | null = null

function down(event: PointerEvent, { setting, along, entry = -1 }: Handle): void {
  const from = along === 'x' ? event.clientX : -event.clientY
  grip = { setting, entry, along, from, start: valueOf(setting, entry), moved: false }
  held.value = scale.value
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  emit('begin')
}

function dragTo(event: PointerEvent): number {
  const now = grip!.along === 'x' ? event.clientX : -event.clientY
  return Math.max(snapped(grip!.start + (now - grip!.from) / scale.value, stepOf(event)), STEP.value)
}

function move(event: PointerEvent): void {
  if (!grip) return
  const now = grip.along === 'x' ? event.clientX : -event.clientY
  grip.moved ||= Math.abs(now - grip.from) >= STILL_PX
  if (!grip.moved) return
  if (grip.entry < 0) emit('drag', grip.setting, dragTo(event))
  else emit('answer', grip.setting, listWith(grip.setting, grip.entry, say.short(dragTo(event))))
}

function drop(event: PointerEvent): void {
  if (!grip) return
  if (grip.moved && grip.entry < 0) emit('drop', grip.setting, dragTo(event))
  else move(event)
  grip = null
  held.value = null
}

const KEYS: Record<string, number> = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }
function key(event: KeyboardEvent, { setting, entry = -1 }: Handle): void {
  const way = KEYS[event.key]
  if (!way) return
  event.preventDefault()
  emit('begin')
  const mm = Math.max(snapped(valueOf(setting, entry) + way * stepOf(event), stepOf(event)), STEP.value)
  if (entry < 0) emit('drop', setting, mm)
  else emit('answer', setting, listWith(setting, entry, say.short(mm)))
}
</script>

<template>
  <div ref="frame" class="picture">
    <svg :width="width" :height="height" :data-scale="scale">
      <defs><ArrowHead :id="arrow" /></defs>
      <g v-for="(place, v) in placed" :key="v">
        <text class="title" :x="place.title[0]" :y="place.title[1]">
          {{ place.view.title }}
          <tspan v-for="one in place.view.says ?? []" :key="one" class="says" dx="10">
            {{ say.sentence(one) }}
          </tspan>
        </text>
        <template v-for="(shape, i) in place.view.shapes" :key="i">
          <path v-if="shape.outline.length" :class="shape.kind" :d="outlined(place, shape.outline)" />
          <rect
            v-else
            :class="[shape.kind, { piece: shape.piece }]"
            :tabindex="shape.piece ? 0 : undefined"
            :role="shape.piece ? 'button' : undefined"
            :aria-label="shape.piece ? `Piece of wall ${shape.piece}` : undefined"
            :aria-pressed="shape.piece ? shape.kind === 'wall' : undefined"
            :x="px(place, [shape.box[0]!, shape.box[3]!])[0]"
            :y="px(place, [shape.box[0]!, shape.box[3]!])[1]"
            :width="Math.max((shape.box[2]! - shape.box[0]!) * scale, 0)"
            :height="Math.max((shape.box[3]! - shape.box[1]!) * scale, 0)"
            @click="shape.piece && toggle(shape.piece)"
            @keydown.enter.prevent="shape.piece && toggle(shape.piece)"
            @keydown.space.prevent="shape.piece && toggle(shape.piece)"
          />
        </template>
        <template v-for="(one, i) in place.view.clears ?? []" :key="`clear-${i}`">
          <text
            v-if="one.size[0]! * scale > 124"
            class="inside figure"
            :x="px(place, one.at as [number, number])[0]"
            :y="px(place, one.at as [number, number])[1] + 5"
          >
            {{ say.length(one.size[0]!) }} × {{ say.length(one.size[1]!) }}
          </text>
          <text
            v-else-if="one.size[0]! * scale > 64"
            class="inside figure small"
            :x="px(place, one.at as [number, number])[0]"
            :y="px(place, one.at as [number, number])[1] - 3"
          >
            {{ say.short(one.size[0]!) }}
            <tspan :x="px(place, one.at as [number, number])[0]" dy="1.15em">
              × {{ say.short(one.size[1]!) }}
            </tspan>
          </text>
        </template>
      </g>
      <g v-for="one in all" :key="one.key" class="line" :class="{ chosen: one.size.setting }">
        <path class="feet" :d="one.feet" />
        <path
          :d="`M${one.from.join(' ')}L${one.to.join(' ')}`"
          :marker-start="`url(#${arrow})`"
          :marker-end="`url(#${arrow})`"
        />
      </g>
      <g
        v-for="{ handle, at } in handles"
        :key="`${handle.setting}-${handle.entry ?? -1}`"
        class="handle"
        tabindex="0"
        role="slider"
        :aria-label="`${titles[handle.setting]}${(handle.entry ?? -1) < 0 ? '' : ` ${handle.entry! + 1}`}, drag or arrow keys`"
        :aria-valuenow="valueOf(handle.setting, handle.entry)"
        :aria-valuetext="`${say.length(valueOf(handle.setting, handle.entry))} ${say.unit}`"
        :aria-orientation="handle.along === 'x' ? 'horizontal' : 'vertical'"
        :transform="`translate(${at[0]} ${at[1]}) rotate(${handle.along === 'x' ? 90 : 0})`"
        @pointerdown="down($event, handle)"
        @pointermove="move"
        @pointerup="drop"
        @pointercancel="drop"
        @keydown="key($event, handle)"
      >
        <rect class="reach" x="-18" y="-14" width="36" height="28" />
        <path d="M-10 -8h7v7h6v-7h7v16h-20z" />
      </g>
      <g class="bar" :transform="`translate(16 ${height - 12})`">
        <path :d="`M.5 -6V.5H${bar.long}V-6`" />
        <text class="figure" :x="bar.long + 8" y="2">{{ bar.text }}</text>
      </g>
    </svg>
    <SizeField
      v-for="one in all"
      :key="one.key"
      :at="one.at"
      :label="labelOf(one.size)"
      :value="one.size.value"
      :text="textOf(one.size)"
      :chosen="!!one.size.setting"
      :fixed="!one.size.setting"
      :says="one.says"
      :upright="one.size.side === 'right' || one.size.side === 'left'"
      :was="one.was"
      :problem="one.size.setting ? problemAt(one.size.setting) : null"
      @begin="begin(one.size)"
      @draft="answer(one.size, $event)"
      @keep="keep(one.size, $event)"
      @leave="answer(one.size, $event)"
    >
      <ElButton
        v-if="trackOf(one.size) && entriesOf(one.size.setting).length > 1"
        link
        size="small"
        @click="emit('track', 'remove', one.size.setting as 'columns', entryOf(one.size))"
        >Remove this {{ trackOf(one.size) }}</ElButton
      >
    </SizeField>
    <button
      v-for="{ side, at } in picture.additions"
      :key="side"
      type="button"
      class="add"
      :style="{ left: `${at[0]}px`, top: `${at[1]}px` }"
      :aria-label="`Add a ${TRACKS[side]}`"
      :title="`Add a ${TRACKS[side]}`"
      @click="emit('track', 'add', side, 0)"
    >
      +
    </button>
  </div>
</template>

<style scoped>
.picture {
  position: relative;
  min-height: 20rem;
  overflow: hidden;
}
svg {
  display: block;
  position: absolute;
  inset: 0;
}
.title {
  fill: var(--ink);
  font-weight: 600;
}
.board,
.face {
  fill: var(--end-grain);
  stroke: var(--ink);
  stroke-width: 1.5;
}
.face {
  fill: var(--board);
}
.clear {
  fill: var(--sheet);
  stroke: var(--ink);
}
.wall {
  fill: var(--end-grain);
  stroke: var(--ink);
}
.gone {
  fill: transparent;
  stroke: var(--second);
  stroke-dasharray: 2 4;
}
.piece {
  cursor: pointer;
}
.piece:hover,
.piece:focus-visible {
  fill: var(--deep);
}
.inside {
  fill: var(--ink);
  text-anchor: middle;
  pointer-events: none;
}
.says {
  fill: var(--ochre-text);
  font-weight: 400;
}
.mark {
  fill: color-mix(in srgb, #cc79a7 30%, transparent);
  stroke: #9c4a78;
}
.pocket {
  fill: color-mix(in srgb, #009e73 20%, transparent);
  stroke: #00714f;
}
.hidden {
  fill: none;
  stroke: var(--second);
  stroke-dasharray: 5 4;
}
.line path {
  fill: none;
  stroke: var(--second);
}
.line.chosen path {
  stroke: var(--ink);
}
.line .feet {
  stroke: var(--line);
}
.add {
  position: absolute;
  width: 26px;
  height: 26px;
  border: 1px solid var(--line);
  background: var(--sheet);
  color: var(--ink);
  line-height: 1;
  transform: translate(-50%, -50%);
  cursor: pointer;
}
.add:hover,
.add:focus-visible {
  background: var(--deep-wash);
}
.handle {
  cursor: grab;
  touch-action: none;
}
.handle path {
  fill: var(--ink);
}
.handle .reach {
  fill: transparent;
}
.handle:hover path,
.handle:focus-visible path {
  fill: var(--deep);
}
.bar path {
  fill: none;
  stroke: var(--ink);
}
.bar text {
  fill: var(--ink);
  font-size: 0.9rem;
}
</style>
