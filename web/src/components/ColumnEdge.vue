<script setup lang="ts">
import { useStorage } from '@vueuse/core'
import { onUnmounted, watchEffect } from 'vue'

/** The left edge of the ledger: dragged, or moved by arrow keys, it makes the column wider or narrower; a double click or Home brings
 * back the usual width. Kept for this browser. */
const LEAST = 18
const MOST = 46
const STEP = 2
const USUAL = 21.5
/** In rem, so that it grows with the letters; 0 is the usual one. */
const width = useStorage('ledger-width', 0)
const root = document.documentElement
const rem = () => parseFloat(getComputedStyle(root).fontSize) || 16
const bounded = (value: number) => Math.max(LEAST, Math.min(MOST, (window.innerWidth * 0.55) / rem(), value))

watchEffect(() => {
  if (width.value) root.style.setProperty('--ledger', `${bounded(width.value)}rem`)
  else root.style.removeProperty('--ledger')
})
onUnmounted(() => root.style.removeProperty('--ledger'))

let held: { pointer: number; x: number; from: number } | null = null
const now = (edge: Element) => edge.parentElement!.getBoundingClientRect().width / rem()

function down(event: PointerEvent): void {
  if (event.button) return
  const edge = event.currentTarget as Element
  held = { pointer: event.pointerId, x: event.clientX, from: now(edge) }
  edge.setPointerCapture(event.pointerId)
}
function move(event: PointerEvent): void {
  if (held?.pointer === event.pointerId) width.value = bounded(held.from + (held.x - event.clientX) / rem())
}
function up(event: PointerEvent): void {
  if (held?.pointer === event.pointerId) held = null
}
function key(event: KeyboardEvent): void {
  const by = { ArrowLeft: STEP, ArrowRight: -STEP }[event.key]
  if (by) width.value = bounded(now(event.currentTarget as Element) + by)
  else if (event.key === 'Home') width.value = 0
  else return
  event.preventDefault()
}
</script>

<template>
  <div
    class="edge"
    role="separator"
    aria-orientation="vertical"
    aria-label="Width of this column: arrow keys change it, Home resets it"
    :aria-valuenow="width || USUAL"
    :aria-valuemin="LEAST"
    :aria-valuemax="MOST"
    tabindex="0"
    title="Drag to make this column wider; double-click for the usual width"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="up"
    @dblclick="width = 0"
    @keydown="key"
  />
</template>

<style scoped>
.edge {
  position: absolute;
  z-index: 6;
  top: 0;
  bottom: 0;
  left: -4px;
  width: 9px;
  cursor: col-resize;
  touch-action: none;
}
.edge:hover,
.edge:focus-visible {
  background: linear-gradient(90deg, transparent 3px, var(--deep) 3px, var(--deep) 5px, transparent 5px);
  outline: none;
}
@media (max-width: 860px) {
  .edge {
    display: none;
  }
}
</style>
