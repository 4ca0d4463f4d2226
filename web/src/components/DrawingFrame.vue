<script setup lang="ts">
import { onLongPress } from '@vueuse/core'
import { computed, ref, useId, useTemplateRef, watch } from 'vue'

import { useViewport } from '../composables/useViewport'
import { scaleBar, toScreen, type Box, type Point } from '../geometry/view'
import { textWidth } from '../composables/textWidth'
import { placeNames, seen, type Label } from '../geometry/names'
import PartNames from './PartNames.vue'
import Still from './Still.vue'
import { useSay } from '../composables/useSay'
import { MM_PER_INCH } from '../units'

/** A drawing to scale: pan and zoom by wheel, touch and keys, a scale bar, and where the pointer is. */
const props = defineProps<{
  box: Box
  label: string
  readout?: boolean
  aside?: number
  /** Room round the drawing in px, where sizes stand beside it. */
  padding?: number
  /** What is named on it, and what of the drawing names may not be written over, in px. */
  names?: readonly Label[]
  taken?: (at: (point: Point) => Point) => Box[]
}>()
const emit = defineEmits<{
  /** What was clicked, the paper itself included. */
  pick: [target: Element]
  menu: [target: Element, at: readonly [number, number]]
}>()
const say = useSay()
const frame = ref<SVGSVGElement | null>(null)
const port = useViewport(
  frame,
  () => props.box,
  () => props.aside ?? 0,
  () => props.padding ?? 24,
)

const bar = computed(() => {
  const perUnit = port.view.value.scale * (say.unit === 'in' ? MM_PER_INCH : 1)
  const { length, px } = scaleBar(perUnit, Math.min(160, port.size.value.width * 0.3))
  return { text: say.number(length, 6, 0), px }
})

const at = (point: Point) => toScreen(port.view.value, point)
const TOOLS_PX = 44
const placed = computed(() => {
  if (!props.names) return null
  const { width, height } = port.size.value
  const named = props.names.map((one) => ({
    ...one,
    box: seen(one.box, at),
    room: one.room && seen(one.room, at),
  }))
  return placeNames(
    named,
    [4, 4, width - (props.aside ?? 0) - 4, height - TOOLS_PX],
    textWidth,
    props.taken?.(at),
  )
})
/** How high the list is. Once there is one it keeps its room, or the drawing would grow into it and need it again. */
const LINE_PX = 22
const listed = ref(0)
const list = useTemplateRef('list')
watch(
  [() => props.names, placed],
  ([names], [before]) => {
    const kept = names === before ? listed.value : 0
    const count = placed.value?.list.length ?? 0
    listed.value = Math.max(kept, count ? LINE_PX : 0, count ? (list.value?.scrollHeight ?? 0) : 0)
  },
  { flush: 'post', immediate: true },
)
const labels = computed(() => new Map((props.names ?? []).map((one) => [one.key, one])))

/** Hatches keep their distance on the screen whatever the scale. Each frame has its own. */
const steady = computed(() => `scale(${1 / port.view.value.scale})`)
const id = useId()
const hatches = { '--fine-hatch': `url(#${id}-fine)`, '--slant-hatch': `url(#${id}-slant)` }

/** Where a menu is asked for by key, it opens at the thing that has the focus. */
function menuAt(target: Element, x: number, y: number): void {
  const edge = target.getBoundingClientRect()
  const byKey = !x && !y
  const at = byKey ? ([edge.left + edge.width / 2, edge.top + edge.height / 2] as const) : ([x, y] as const)
  emit('menu', target, at)
}
onLongPress(
  computed(() => frame.value),
  (event) => {
    if (event.pointerType !== 'mouse') menuAt(event.target as Element, event.clientX, event.clientY)
  },
)

defineExpose({ lookAt: port.lookAt, fitAll: port.fitAll, view: port.view })
defineSlots<{
  default(): unknown
  over(scope: { at: (point: Point) => Point; pxPerMm: number }): unknown
  /** What is typed on the drawing: not drawn, but laid over it. */
  fields(scope: { at: (point: Point) => Point; pxPerMm: number }): unknown
}>()
</script>

<template>
  <div class="frame" :style="hatches">
    <svg
      ref="frame"
      tabindex="0"
      role="group"
      :aria-label="`${label}. Arrow keys move, plus and minus zoom, 0 shows all.`"
      @pointerdown="port.onDown"
      @pointermove="port.onMove"
      @pointerup="port.onUp"
      @pointercancel="port.onUp"
      @pointerleave="port.onLeave"
      @click.capture="port.onClick"
      @click="emit('pick', $event.target as Element)"
      @contextmenu.prevent="menuAt($event.target as Element, $event.clientX, $event.clientY)"
      @keydown.self="port.onKey"
    >
      <defs>
        <pattern
          :id="`${id}-fine`"
          width="4"
          height="3"
          patternUnits="userSpaceOnUse"
          :patternTransform="steady"
        >
          <path d="M0 1.5H4" class="hatch engrave" />
        </pattern>
        <pattern
          :id="`${id}-slant`"
          width="6"
          height="6"
          patternUnits="userSpaceOnUse"
          :patternTransform="steady"
        >
          <path d="M-1 7L7 -1M-1 1L1 -1M5 7L7 5" class="hatch pocket" />
        </pattern>
      </defs>
      <g :transform="port.transform.value" :style="{ '--px': `${1 / port.view.value.scale}px` }">
        <Still><slot /></Still>
      </g>
      <slot name="over" :at="at" :px-per-mm="port.view.value.scale" />
      <PartNames v-if="placed" :names="placed.names" :labels="labels" />
    </svg>
    <ol
      v-if="listed"
      ref="list"
      class="listed small"
      :style="{ minHeight: `${listed}px` }"
      aria-label="What the numbers on the drawing are"
    >
      <li v-for="one in placed?.list" :key="one.number">
        <b>{{ one.number }}</b> {{ one.text }}<span class="second">{{ one.note }}</span>
      </li>
    </ol>
    <slot name="fields" :at="at" :px-per-mm="port.view.value.scale" />
    <div class="foot">
      <div class="bar small figure" aria-hidden="true">
        <svg :width="bar.px + 2" height="8">
          <path :d="`M1 7V1H${bar.px + 1}V7M${bar.px / 2 + 1} 1v4`" />
        </svg>
        {{ bar.text }} {{ say.unit }}
      </div>
    </div>
    <div class="tools">
      <span v-if="readout !== false && port.pointer.value" class="figure small second" aria-hidden="true">
        {{ say.short(port.pointer.value[0]) }} · {{ say.short(port.pointer.value[1]) }}
      </span>
      <ElButton size="small" aria-label="Zoom out" @click="port.zoom(1 / 1.6)">−</ElButton>
      <ElButton size="small" aria-label="Zoom in" @click="port.zoom(1.6)">+</ElButton>
      <ElButton size="small" @click="port.fitAll">Show all</ElButton>
    </div>
  </div>
</template>

<style scoped>
.frame {
  position: relative;
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  min-height: 0;
  overflow: hidden;
  background: var(--sheet);
}
.frame > svg {
  display: block;
  width: 100%;
  height: 100%;
  touch-action: none;
  user-select: none;
}
.frame > svg:focus-visible {
  outline-offset: -3px;
}
.frame :deep(path),
.frame :deep(line),
.frame :deep(rect) {
  vector-effect: non-scaling-stroke;
}
/* Thousands of lines as one: their width is told in mm, which costs a browser far less than keeping it steady by itself. */
.frame :deep(.many) {
  vector-effect: none;
}
.hatch {
  stroke-width: 0.9;
}
.hatch.engrave {
  stroke: var(--engrave);
}
.hatch.pocket {
  stroke: var(--pocket);
}
.foot {
  position: absolute;
  left: 22px;
  right: 170px;
  bottom: 8px;
  display: flex;
  flex-wrap: wrap-reverse;
  align-items: end;
  gap: 4px 18px;
  pointer-events: none;
}
.bar {
  display: grid;
}
.bar path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.5;
}
.listed {
  display: flex;
  flex-wrap: wrap;
  align-content: start;
  gap: 0 14px;
  max-height: 6.2em;
  margin: 0 0 44px;
  padding: 0 22px;
  overflow-y: auto;
  list-style: none;
}
.tools {
  position: absolute;
  right: 14px;
  bottom: 10px;
  display: flex;
  align-items: center;
  gap: 4px;
}
</style>
