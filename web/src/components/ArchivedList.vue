<script setup lang="ts">
/** What was archived, with the way to restore it. */
defineProps<{ rows: readonly { id: number; name: string }[] }>()
const emit = defineEmits<{ restore: [id: number] }>()
</script>

<template>
  <details v-if="rows.length" class="archived small">
    <summary>{{ rows.length }} archived</summary>
    <ul>
      <li v-for="row in rows" :key="row.id">
        <span>{{ row.name }}</span>
        <button class="link small" :aria-label="`Restore ${row.name}`" @click="emit('restore', row.id)">
          Restore
        </button>
      </li>
    </ul>
  </details>
</template>

<style scoped>
.archived {
  margin: 10px 12px;
}
summary {
  cursor: pointer;
  color: var(--second);
}
li {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  align-items: baseline;
}
</style>
