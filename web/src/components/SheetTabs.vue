<script setup lang="ts">
import { computed } from 'vue'

/** Which sheet is shown, where there are several. */
const props = defineProps<{ count: number }>()
const current = defineModel<number>({ required: true })
const options = computed(() => Array.from({ length: props.count }, (_, i) => i + 1))
</script>

<template>
  <ElSegmented v-if="count > 1" v-model="current" aria-label="Sheet" size="small" :options="options" />
</template>
