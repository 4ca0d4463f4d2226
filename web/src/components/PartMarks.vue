<script setup lang="ts">
import type { Part } from '../api/client'

/** What is drawn on a part besides its own outline, where the part lies. */
defineProps<{ part: Part; transform: string }>()
</script>

<template>
  <template v-for="mark in part.steps" :key="mark.id">
    <path
      v-if="mark.path && !mark.back"
      :d="mark.path"
      :transform="transform"
      fill-rule="evenodd"
      class="work"
      :class="mark.operation"
    />
  </template>
</template>
