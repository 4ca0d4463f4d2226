<script setup lang="ts">
import { useTitle } from '@vueuse/core'
import { computed } from 'vue'
import { useRoute } from 'vue-router'

import ConnectionBanner from './components/ConnectionBanner.vue'
import PageSkeleton from './components/PageSkeleton.vue'
import { useJob } from './stores/job'
import { useSettings } from './stores/settings'

useSettings() // sets the theme before anything is drawn
const route = useRoute()
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
  <ConnectionBanner />
  <RouterView v-slot="{ Component }">
    <component :is="Component" v-if="Component" />
    <PageSkeleton v-else />
  </RouterView>
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
.skip:focus {
  top: 8px;
}
</style>
