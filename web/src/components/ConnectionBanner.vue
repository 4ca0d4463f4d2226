<script setup lang="ts">
import { defineAsyncComponent, ref } from 'vue'
import { useRoute } from 'vue-router'

import { connection, sendAgain } from '../api/connection'

const SignInDialog = defineAsyncComponent(() => import('./SignInDialog.vue'))

/** Says when the server cannot be reached or no longer knows who asks, what is kept meanwhile, and the way back. */
const route = useRoute()
const signing = ref(false)

function changes(): string {
  const { waiting } = connection
  if (!waiting) return 'Nothing you typed is lost.'
  return waiting === 1
    ? 'Your change is kept here and will be sent.'
    : `${waiting} changes are kept here and will be sent.`
}
</script>

<template>
  <div v-if="connection.signedOut && route.name !== 'sign-in'" class="banner" role="alert">
    You are no longer signed in. {{ changes() }}
    <ElButton size="small" @click="signing = true">Sign in</ElButton>
  </div>
  <div v-else-if="!connection.online || connection.waiting || connection.wanted" class="banner" role="alert">
    No connection to the server. {{ changes() }}
    <template v-if="connection.wanted">The page you asked for opens once there is one.</template>
    <ElButton v-if="connection.waiting" size="small" @click="sendAgain">Send now</ElButton>
  </div>
  <SignInDialog v-if="signing" @close="signing = false" />
</template>

<style scoped>
.banner {
  position: fixed;
  z-index: 90;
  left: 50%;
  bottom: 16px;
  display: flex;
  align-items: center;
  gap: 12px;
  max-width: calc(100vw - 24px);
  padding: 8px 14px;
  transform: translateX(-50%);
  color: var(--ink);
  background: var(--ochre-wash);
  border: 1px solid var(--ochre);
}
</style>
