<script setup lang="ts">
import { useDropZone } from '@vueuse/core'
import type { UploadRawFile } from 'element-plus'
import { computed } from 'vue'

/** The notch, waiting for a board: a drawing to be checked, or a packed job to be opened, dropped anywhere on the page. */
const emit = defineEmits<{ file: [file: File] }>()
const page = computed(() => document.body)
const { isOverDropZone: over } = useDropZone(page, {
  onDrop: (files) => files?.[0] && emit('file', files[0]),
})

function pick(file: UploadRawFile): false {
  emit('file', file)
  return false
}
</script>

<template>
  <section class="slot" :class="{ over }" aria-label="Drop a file">
    <svg viewBox="0 0 200 62" preserveAspectRatio="none" aria-hidden="true">
      <path d="M1 61V1H66V60H134V1H199V61" />
    </svg>
    <svg class="arrow" viewBox="0 0 24 46" aria-hidden="true"><path d="M12 2V42M3 32l9 11 9-11" /></svg>
    <div>
      <b>Drop a drawing here</b>
      <span class="small second">SVG or DXF: it is checked, and not kept</span>
      <span class="small second">a packed job (.zip): it is opened</span>
      <ElUpload accept=".svg,.dxf,.zip" :show-file-list="false" :before-upload="pick">
        <ElButton tag="span" link type="primary">Choose a file</ElButton>
      </ElUpload>
    </div>
  </section>
</template>

<style scoped>
.slot {
  position: relative;
  display: grid;
  align-content: end;
  justify-items: center;
  min-width: 12.5rem;
  min-height: 10.5rem;
  padding: 0 12px 8px;
  border: 1.5px dashed var(--deep);
  border-top: 0;
  text-align: center;
}
.slot > svg:first-child {
  position: absolute;
  inset: 0 -1.5px auto;
  width: calc(100% + 3px);
  height: 3.9rem;
}
path {
  fill: none;
  stroke: var(--deep);
  stroke-width: 1.5;
  stroke-dasharray: 6 4;
  vector-effect: non-scaling-stroke;
}
.arrow {
  position: absolute;
  top: 4px;
  height: 2.9rem;
}
.arrow path {
  stroke-dasharray: none;
  stroke-width: 2;
}
div {
  display: grid;
  justify-items: center;
}
.over {
  background: var(--deep-wash);
}
</style>
