<script setup lang="ts">
import { useTitle } from '@vueuse/core'
import { computed, defineAsyncComponent } from 'vue'
import { useRoute } from 'vue-router'

import ConnectionBanner from './components/ConnectionBanner.vue'
import PageSkeleton from './components/PageSkeleton.vue'
import WaitedFor from './components/WaitedFor.vue'
import { usePending } from './composables/usePending'
import { keysShown, useShortcuts } from './composables/useShortcuts'
import { readDecimalCommas } from './decimalComma'
import { useJob } from './stores/job'
import { useSettings } from './stores/settings'

const settings = useSettings() // sets the theme before anything is drawn
readDecimalCommas(() => settings.style)
const KeysDialog = defineAsyncComponent(() => import('./components/KeysDialog.vue'))

const route = useRoute()
const pending = usePending()
useShortcuts({ help: () => (keysShown.value = true) })
const job = useJob()

useTitle(
  computed(() => {
    const job_name = route.path.startsWith('/jobs/') ? job.design?.name : ''
    return [route.meta['title'], job_name, 'Lean Notch'].filter(Boolean).join(' · ')
  }),
)
</script>

<template>
  <a class="skip" href="#main">Skip to the main part</a>
  <div v-if="pending" class="pending" role="status" aria-label="Loading" />
  <ConnectionBanner />
  <WaitedFor />
  <RouterView v-slot="{ Component }">
    <component :is="Component" v-if="Component" />
    <PageSkeleton v-else />
  </RouterView>
  <KeysDialog v-if="keysShown" @close="keysShown = false" />
</template>

<style scoped>
.skip {
  position: absolute;
  z-index: 100;
  left: 8px;
  top: -60px;
  padding: 8px 14px;
  background: var(--panel);
}
.pending {
  position: fixed;
  z-index: 95;
  top: 0;
  left: 0;
  width: 30%;
  height: 3px;
  background: var(--deep);
  animation: along 1.2s infinite linear;
}
@keyframes along {
  to {
    left: 100%;
  }
}
.skip:focus {
  top: 8px;
}
</style>
