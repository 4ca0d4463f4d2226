<script setup lang="ts">
import { waited } from '../api/again'
import TaskNote from './TaskNote.vue'

/** What a change or a view of this window waits for. */
</script>

<template>
  <div v-if="waited.tasks[0]" class="waited">
    <TaskNote :task="waited.tasks[0]" />
  </div>
</template>

<style scoped>
.waited {
  position: fixed;
  z-index: 90;
  left: 50%;
  bottom: 16px;
  width: min(30rem, calc(100vw - 24px));
  padding: 4px 14px;
  transform: translateX(-50%);
  color: var(--ink);
  background: var(--panel);
  border: 1px solid var(--line);
}
</style>
