<script setup lang="ts">
import type { Act } from '../composables/useActs'

/** What can be done with the thing above, one after the other. */
defineProps<{ acts: readonly Act[] }>()
</script>

<template>
  <p class="acts">
    <ElButton
      v-for="act in acts"
      :key="act.name"
      link
      size="small"
      :disabled="act.disabled ?? false"
      @click="act.run()"
      >{{ act.name }}</ElButton
    >
    <slot />
  </p>
</template>
