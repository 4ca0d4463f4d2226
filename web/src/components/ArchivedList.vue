<script setup lang="ts">
import { ref } from 'vue'

/** What was archived, with the way to restore it. */
defineProps<{ what: string; rows: readonly { id: number; name: string }[] }>()
const emit = defineEmits<{ restore: [id: number] }>()
const open = ref(false)
</script>

<template>
  <template v-if="rows.length">
    <ElButton class="archived" link @click="open = true">Archived {{ what }} ({{ rows.length }})</ElButton>
    <ElDrawer v-model="open" :title="`Archived ${what}`" size="min(26rem, 90vw)" append-to-body>
      <ul>
        <li v-for="row in rows" :key="row.id">
          <span>{{ row.name }}</span>
          <ElButton size="small" :aria-label="`Restore ${row.name}`" @click="emit('restore', row.id)"
            >Restore</ElButton
          >
        </li>
      </ul>
    </ElDrawer>
  </template>
</template>

<style scoped>
li {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  align-items: center;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
</style>
