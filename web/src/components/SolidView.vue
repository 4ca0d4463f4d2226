<script setup lang="ts">
import { useDevicePixelRatio, useElementSize } from '@vueuse/core'
import { computed, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue'

import { Raster, type Camera, type Drawn, type Section } from '../geometry/raster'
import { along, boxOnPicture, type Ring } from '../geometry/solids'
import { triple, type Triple } from '../geometry/standing'
import { useSolids } from '../composables/useSolids'
import { VIEWS, useTurning } from '../composables/useTurning'
import ChoiceWord from '../kit/ChoiceWord.vue'
import { useJob } from '../stores/job'
import SolidOver from './SolidOver.vue'
import { useSettings } from '../stores/settings'

/** The parts as solids where they stand, to be turned, drawn apart and cut through; parts and joints are picked here. */
const props = defineProps<{
  /** Places to point at: proposals, for instance. */
  marks?: readonly { key: string; place: Triple; says: string; strong?: boolean }[]
  /** Rings that were cut, to be drawn in place of the nominal ones, by part. */
  pieces?: Readonly<Record<string, readonly Ring[]>>
  /** px on the right that something else lies over. */
  aside?: number
}>()
const emit = defineEmits<{ mark: [key: string] }>()
const job = useJob()
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
const clear = computed(
  () => new Set(job.design!.boards.filter(({ basis }) => basis.stock.kind === 'acrylic').map(({ id }) => id)),
)

const { bodies, box, corners, middle, offs } = useSolids(apart, () => props.pieces)

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
  const free = width.value - (props.aside ?? 0)
  const room = [Math.max(free - 190, 50), Math.max(height.value - 150, 50)] as const
  const fitting = Math.min(room[0] / (right - left || 1), room[1] / (high - low || 1))
  const scale = fitting * zoomed.value
  const x = free / 2 - ((left + right) / 2) * scale + shift.value[0]
  const y = height.value / 2 - 6 + ((low + high) / 2) * scale + shift.value[1]
  return { axes: axes.value, scale, x, y }
})

/** The cut goes through the whole from the side that is nearer to the eye. */
const section = computed<Section | null>(() => {
  if (!cut.value) return null
  const i = 'xyz'.indexOf(cutAlong.value)
  const sign = axes.value.near[i]! < 0 ? -1 : 1
  const way = triple((axis) => (axis === i ? sign : 0))
  const ends = [box.value.low[i]! * sign, box.value.high[i]! * sign]
  const [from, to] = [Math.max(...ends), Math.min(...ends)]
  return { way, at: from + (to - from) * (cut.value / 100) * 0.98 }
})

function paint(): void {
  const element = canvas.value
  if (!element || !width.value || !height.value || !drawn.value.length) {
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
</script>

<template>
  <!-- Whatever styles are there, what is drawn in the frame does not decide its size: it would grow for ever. -->
  <div
    ref="frame"
    class="solid"
    style="contain: size"
    tabindex="0"
    role="group"
    aria-label="Assembled. Arrow keys turn it, plus and minus zoom, 0 shows all."
    @keydown.self="turning.onKey"
  >
    <canvas ref="canvas" aria-hidden="true" />
    <SolidOver
      :bodies="bodies"
      :offs="offs"
      :box="box"
      :middle="middle"
      :camera="camera"
      :width="width"
      :height="height"
      :names="names"
      :apart="apart > 0"
      :cut="cut > 0"
      :measured="Boolean(props.pieces)"
      :marks="props.marks ?? []"
      @mark="emit('mark', $event)"
    />
    <div class="tools small" :style="{ right: `${22 + (aside ?? 0)}px` }">
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
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.tools {
  position: absolute;
  left: 22px;
  top: 10px;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
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
  gap: 10px;
  align-items: center;
}
.slide :deep(.el-slider) {
  width: 5rem;
}
.zoom {
  position: absolute;
  right: 14px;
  bottom: 10px;
}
</style>
