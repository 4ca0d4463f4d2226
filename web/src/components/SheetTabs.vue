<script setup lang="ts">
/** Which sheet is shown, where there are several. */
defineProps<{ count: number }>()
const current = defineModel<number>({ required: true })
</script>

<template>
  <div v-if="count > 1" role="group" aria-label="Sheet">
    <button v-for="n in count" :key="n" class="plain" :aria-pressed="n === current" @click="current = n">
      {{ n }}
    </button>
  </div>
</template>

<style scoped>
div {
  flex: none;
  margin-left: auto;
}
[aria-pressed='true'] {
  border-color: var(--deep);
  background: var(--deep-wash);
}
</style>
