<script setup lang="ts">
import { ref, shallowRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { Problem } from '../api/client'
import ProblemNote from '../components/ProblemNote.vue'
import TitleLine from '../components/TitleLine.vue'
import { useSession } from '../stores/session'

const session = useSession()
const router = useRouter()
const route = useRoute()
const name = ref('')
const password = ref('')
const problem = shallowRef<Problem | null>(null)

async function signIn(as: string, secret: string): Promise<void> {
  problem.value = null
  try {
    await session.signIn(as, secret)
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    problem.value = error
    return
  }
  const to = route.query['to']
  await router.push(typeof to === 'string' && to.startsWith('/') ? to : { name: 'home' })
}
</script>

<template>
  <TitleLine />
  <main>
    <h1>Every number comes from a measurement.</h1>
    <p class="second">
      Measure the board and the kerf once. Slots, fingers, sheets and files follow, and the file is proved
      before it is cut.
    </p>
    <form @submit.prevent="signIn(name, password)">
      <label>Name <input v-model="name" class="boxed" autocomplete="username" required /></label>
      <label
        >Password
        <input v-model="password" class="boxed" type="password" autocomplete="current-password" required
      /></label>
      <ProblemNote v-if="problem" :problem="problem" />
      <button class="strong">Sign in</button>
    </form>
    <p v-if="session.session?.demo" class="demo">
      This is the demo of Reedmere Field Room.
      <button class="plain" @click="signIn(session.session.demo.name, session.session.demo.password)">
        Come in as {{ session.session.demo.name }}
      </button>
    </p>
  </main>
</template>

<style scoped>
main {
  width: 400px;
  margin: 9vh auto 0;
}
h1 {
  font-size: 26px;
  font-weight: 600;
  line-height: 1.15;
  margin-bottom: 8px;
}
form {
  display: grid;
  gap: 10px;
  margin: 26px 0;
  padding: 20px;
  background: var(--panel);
  border: 1px solid var(--line);
}
label {
  color: var(--second);
}
.strong {
  justify-self: start;
}
.demo {
  padding: 12px 20px;
  background: var(--deep-wash);
  border-left: 3px solid var(--deep);
}
.demo button {
  margin-left: 6px;
}
</style>
