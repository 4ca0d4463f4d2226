<script setup lang="ts">
import { useDropZone } from '@vueuse/core'
import type { UploadRawFile } from 'element-plus'
import { onMounted, onUnmounted, ref, shallowRef, useTemplateRef } from 'vue'

import { api, type Check, type Task } from '../api/client'
import { whole } from '../api/tasks'
import CheckDrawing from '../components/CheckDrawing.vue'
import CheckLedger from '../components/CheckLedger.vue'
import ProblemNote from '../components/ProblemNote.vue'
import TaskNote from '../components/TaskNote.vue'
import TitleLine from '../components/TitleLine.vue'
import { takeDropped } from '../dropped'
import { useProblem } from '../composables/useProblem'

/** Any drawing from anywhere, looked over before it goes to a machine. */
const check = shallowRef<Check | null>(null)
const { problem, tell } = useProblem()
const task = shallowRef<Task | null>(null)
const name = ref('')
const busy = ref(false)
const main = useTemplateRef('main')
const drawing = ref<InstanceType<typeof CheckDrawing> | null>(null)
let left = false
let looks = 0
onMounted(() => {
  const file = takeDropped()
  if (file) void look(file)
})
onUnmounted(() => (left = true))

const { isOverDropZone: over } = useDropZone(main, { onDrop: (files) => files?.[0] && void look(files[0]) })

/** What is shown is of the file that was chosen last, or nothing. */
async function look(file: File): Promise<void> {
  const mine = ++looks
  const unwanted = () => left || mine !== looks
  check.value = null
  name.value = file.name
  busy.value = true
  await tell(async () => {
    try {
      const found = await whole(() => api.check(file), { watch: (now) => (task.value = now), unwanted })
      if (found && !unwanted()) check.value = found
    } catch (error) {
      if (!unwanted()) throw error // else it is of a file that another one has replaced
    }
  })
  if (mine === looks) busy.value = false
}

/** The same file may be chosen again after it was mended. */
function pick(file: UploadRawFile): false {
  void look(file)
  return false
}
</script>

<template>
  <div class="page">
    <TitleLine />
    <div class="middle">
      <main id="main" ref="main" tabindex="-1" :class="{ over }">
        <header>
          <h1>Check a drawing</h1>
          <span class="second about">{{ name || 'any SVG or DXF, before it goes to a machine' }}</span>
          <ElUpload accept=".svg,.dxf" :show-file-list="false" :before-upload="pick">
            <ElButton tag="span" type="primary" :loading="busy">{{
              name ? 'Choose another file' : 'Choose a file'
            }}</ElButton>
          </ElUpload>
        </header>
        <div class="notes">
          <TaskNote v-if="task" :task="task" />
          <ProblemNote v-else-if="problem" :problem="problem" />
        </div>
        <CheckDrawing v-if="check" ref="drawing" :check="check" />
        <p v-else-if="!busy" class="empty second">
          Drop a file here, or choose one. It is checked for size and unit, open and doubled outlines,
          crossings, stray points, circles made of short lines, text that is still text, fills, invisible
          lines, and cuts too close to each other. The file is not kept.
        </p>
        <ElSkeleton v-else class="empty" animated :rows="5" />
      </main>
      <aside v-if="check" aria-label="Ledger">
        <CheckLedger :check="check" @show="drawing?.lookAt($event)" />
      </aside>
    </div>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100%;
}
.middle {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  min-height: 0;
}
main {
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr);
  min-height: 0;
  background: var(--sheet);
}
main:focus {
  outline: none;
}
main.over {
  outline: 3px solid var(--deep);
  outline-offset: -8px;
}
main header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  padding: 10px 22px 6px;
}
.about {
  flex: 1 1 12rem;
  overflow-wrap: anywhere;
}
.notes {
  padding: 0 22px;
}
.empty {
  max-width: 34rem;
  padding: 48px 22px;
}
aside {
  width: 23rem;
  overflow-y: auto;
  background: var(--panel);
  border-left: 1px solid var(--line);
}
@media (max-width: 860px) {
  .page,
  .middle {
    display: block;
    height: auto;
  }
  main > :last-child {
    min-height: 60vh;
  }
  aside {
    width: auto;
  }
}
</style>
