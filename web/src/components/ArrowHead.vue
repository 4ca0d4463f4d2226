<script setup lang="ts">
/** The end of a size's line. */
defineProps<{ id: string }>()
</script>

<template>
  <marker
    :id="id"
    viewBox="0 0 10 8"
    refX="10"
    refY="4"
    markerWidth="10"
    markerHeight="8"
    orient="auto-start-reverse"
    markerUnits="userSpaceOnUse"
  >
    <path d="M0 1.2L10 4 0 6.8z" />
  </marker>
</template>

<style scoped>
path {
  fill: var(--ink);
}
</style>
