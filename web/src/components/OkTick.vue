<script setup lang="ts">
/** In order, not in order, or in order if a number that nobody measured is right: then it is not green. */
defineProps<{ ok: boolean; provided: string }>()
</script>

<template>
  <span v-if="!ok" class="bad"
    ><span aria-hidden="true">!</span><span class="unseen">not in order</span></span
  >
  <span v-else-if="provided" class="ochre" :title="`If ${provided}`"
    ><span aria-hidden="true">(✓)</span><span class="unseen">in order, if {{ provided }}</span></span
  >
  <span v-else class="good"><span aria-hidden="true">✓</span><span class="unseen">in order</span></span>
</template>

<style scoped>
.bad {
  font-weight: 700;
}
.good {
  color: var(--deep);
}
</style>
