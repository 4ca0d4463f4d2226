<script setup lang="ts">
/** A board's edge with a notch: filled when in order, ochre when something wants a look, outline when not begun. */
defineProps<{ state: 'ready' | 'look' | 'open' | 'here' }>()
</script>

<template>
  <svg viewBox="0 0 20 17" width="19" height="16" :class="state" aria-hidden="true">
    <path d="M1 1h6v6h6V1h6v15H1z" />
  </svg>
</template>

<style scoped>
path {
  stroke-width: 1.3;
  fill: currentColor;
  stroke: currentColor;
}
.ready {
  color: var(--deep);
}
.look {
  color: var(--ochre);
}
.here {
  color: var(--ink);
}
.open {
  color: var(--third);
}
.open path {
  fill: none;
}
</style>
