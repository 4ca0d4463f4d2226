<script setup lang="ts">
import type { ProofState } from '../stores/proving'

/** Two boards at their notch: closed where the parts fit, a gap where that rests on something, apart where they do not. */
defineProps<{ state: ProofState }>()

/** How far the upper board stands from the lower one, in px, and beside it. */
const APART: Record<ProofState, readonly [number, number]> = {
  fits: [0, 0],
  provided: [0, -3],
  'as-seen': [0, -3],
  'does-not-fit': [6, -4],
  failed: [6, -4],
  nothing: [0, -7],
  waiting: [0, -7],
  running: [0, -7],
}
</script>

<template>
  <svg viewBox="0 -8 48 42" width="48" height="42" :class="state" aria-hidden="true">
    <path class="upper" :transform="`translate(${APART[state].join(' ')})`" d="M2 1h38v11h-11v9h-16v-9H2z" />
    <path class="lower" d="M2 13h11v9h16v-9h11v19H2z" />
  </svg>
</template>

<style scoped>
path {
  stroke: currentColor;
  stroke-width: 1.5;
}
.upper {
  fill: color-mix(in srgb, currentColor 35%, var(--panel));
}
.lower {
  fill: currentColor;
}
.fits {
  color: var(--deep);
}
.provided,
.as-seen {
  color: var(--ochre-text);
}
.does-not-fit,
.failed {
  color: var(--bad);
}
.nothing,
.waiting,
.running {
  color: var(--third);
}
.nothing path,
.waiting path,
.running path {
  fill: none;
}
</style>
