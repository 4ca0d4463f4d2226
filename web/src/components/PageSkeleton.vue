<script setup lang="ts">
/** The page's outline, while what it shows is on its way: a title line, and one of the frames below it. */
withDefaults(defineProps<{ frame?: 'plain' | 'list' }>(), { frame: 'plain' })
</script>

<template>
  <div class="skeleton" role="status" aria-label="Loading">
    <ElSkeleton animated :rows="frame === 'list' ? 8 : 5" />
  </div>
</template>

<style scoped>
.skeleton {
  max-width: 44rem;
  padding: 24px 22px;
}
</style>
