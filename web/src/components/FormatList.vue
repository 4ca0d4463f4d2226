<script setup lang="ts">
import type { FileFormat } from '../api/client'
import { FORMATS } from '../formats'

/** A button for each format of a file, and what it is good for. */
defineProps<{
  busy: string
  disabled: boolean
  label: string
  names?: (format: FileFormat) => readonly string[]
}>()
const emit = defineEmits<{ write: [format: FileFormat] }>()
</script>

<template>
  <ul class="formats">
    <li v-for="{ format, name, about } in FORMATS" :key="format">
      <ElButton
        :type="format === 'svg' ? 'primary' : 'default'"
        :disabled="disabled || (busy !== '' && busy !== format)"
        :loading="busy === format"
        @click="emit('write', format)"
        >{{ label }} {{ name }}</ElButton
      >
      <span>
        <span v-for="file in names?.(format) ?? []" :key="file" class="file">{{ file }}</span>
        <span class="second small">{{ about }}</span>
      </span>
    </li>
    <slot />
  </ul>
</template>

<style scoped>
.formats {
  margin: 6px 0 22px;
}
.formats > :deep(li) {
  display: grid;
  grid-template-columns: 13rem 1fr;
  align-items: center;
  gap: 14px;
  margin-bottom: 8px;
}
.formats > :deep(li > .el-button) {
  justify-content: flex-start;
}
.file {
  display: block;
  overflow-wrap: anywhere;
}
@media (max-width: 860px) {
  .formats > :deep(li) {
    grid-template-columns: 1fr;
    gap: 2px;
  }
}
</style>
