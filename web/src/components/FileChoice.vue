<script setup lang="ts">
import type { UploadRawFile } from 'element-plus'

import { api } from '../api/client'
import { useJob } from '../stores/job'

/** The drawing that a step takes its outlines from. */
const props = defineProps<{ path: string }>()
const job = useJob()

function choose(file: UploadRawFile): false {
  void job.attempt(async () => {
    await job.put(props.path, (await api.keepFile(file)).name)
  })
  return false
}
</script>

<template>
  <ElUpload accept=".svg,.dxf" :show-file-list="false" :before-upload="choose">
    <ElButton tag="span" size="small">Choose another SVG or DXF</ElButton>
  </ElUpload>
</template>
