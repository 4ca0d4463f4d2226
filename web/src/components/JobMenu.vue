<script setup lang="ts">
import type { DropdownInstance } from 'element-plus'
import { nextTick, onMounted, ref } from 'vue'

import type { Act } from '../composables/useActs'

/** What can be done with a job of the table, at the button that asked for it. */
const props = defineProps<{ at: HTMLElement; acts: readonly Act[]; label: string }>()
const emit = defineEmits<{ close: [] }>()
const dropdown = ref<DropdownInstance | null>(null)
onMounted(async () => {
  await nextTick()
  dropdown.value?.handleOpen()
})

function closed(open: boolean): void {
  if (open) return
  props.at.focus()
  emit('close')
}
</script>

<template>
  <ElDropdown
    ref="dropdown"
    virtual-triggering
    :virtual-ref="at"
    trigger="click"
    placement="bottom-start"
    @visible-change="closed"
    @command="($event as Act).run()"
  >
    <template #dropdown>
      <ElDropdownMenu :aria-label="label">
        <ElDropdownItem v-for="act in acts" :key="act.name" :command="act">{{ act.name }}</ElDropdownItem>
      </ElDropdownMenu>
    </template>
  </ElDropdown>
</template>
