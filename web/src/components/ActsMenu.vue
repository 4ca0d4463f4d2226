<script setup lang="ts">
import type { DropdownInstance } from 'element-plus'
import { computed, nextTick, onMounted, ref } from 'vue'

import { useActs, type Act } from '../composables/useActs'
import { useJob } from '../stores/job'

/** What can be done with what is selected, where it was asked for: right click, long press, or the menu key. */
const job = useJob()
const acts = useActs()
const dropdown = ref<DropdownInstance | null>(null)
const items = computed(() => acts.ofSelected())
/** Whoever asked gets the focus back. */
const asker = document.activeElement as HTMLElement | null
const place = {
  getBoundingClientRect: () => DOMRect.fromRect({ x: job.menuAt?.[0] ?? 0, y: job.menuAt?.[1] ?? 0 }),
}

onMounted(async () => {
  await nextTick()
  dropdown.value?.handleOpen()
})

function closed(open: boolean): void {
  if (open) return
  job.menuAt = null
  asker?.focus?.()
}
</script>

<template>
  <ElDropdown
    ref="dropdown"
    virtual-triggering
    :virtual-ref="place"
    trigger="contextmenu"
    placement="bottom-start"
    @visible-change="closed"
    @command="($event as Act).run()"
  >
    <template #dropdown>
      <ElDropdownMenu aria-label="What can be done with it">
        <ElDropdownItem
          v-for="act in items"
          :key="act.name"
          :command="act"
          :disabled="act.disabled ?? false"
          >{{ act.name }}</ElDropdownItem
        >
      </ElDropdownMenu>
    </template>
  </ElDropdown>
</template>
