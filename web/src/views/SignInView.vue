<script setup lang="ts">
import { useRoute, useRouter } from 'vue-router'

import SignInForm from '../components/SignInForm.vue'
import TitleLine from '../components/TitleLine.vue'

const router = useRouter()
const route = useRoute()

async function goOn(): Promise<void> {
  const to = route.query['to']
  await router.push(typeof to === 'string' && /^\/(?!\/)/.test(to) ? to : { name: 'home' })
}
</script>

<template>
  <div>
    <TitleLine />
    <main id="main" tabindex="-1">
      <h1>Every number comes from a measurement.</h1>
      <p class="second">
        Measure the board and the kerf once. Slots, fingers, sheets and files follow, and the file is proved
        before it is cut.
      </p>
      <SignInForm @done="goOn" />
    </main>
  </div>
</template>

<style scoped>
main {
  max-width: 27rem;
  margin: 8vh auto 0;
  padding: 0 16px;
}
h1 {
  margin-bottom: 8px;
  font-size: 1.75rem;
  line-height: 1.15;
}
</style>
