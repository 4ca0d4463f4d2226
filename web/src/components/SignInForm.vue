<script setup lang="ts">
import { ref } from 'vue'

import { useProblem } from '../composables/useProblem'
import PlainField from '../kit/PlainField.vue'
import { useSession } from '../stores/session'
import ProblemNote from './ProblemNote.vue'

/** Name and password; in the demo, its own maker with one press. */
const emit = defineEmits<{ done: [] }>()
const session = useSession()
const name = ref('')
const password = ref('')
const busy = ref(false)
const { problem, tell } = useProblem()

async function signIn(as: string, secret: string): Promise<void> {
  busy.value = true
  const done = await tell(() => session.signIn(as, secret))
  busy.value = false
  if (done) emit('done')
}
</script>

<template>
  <form class="card" @submit.prevent="signIn(name, password)">
    <PlainField v-model="name" label="Name" words autocomplete="username" />
    <PlainField
      v-model="password"
      label="Password"
      words
      type="password"
      autocomplete="current-password"
      :problem="problem?.field === 'password' ? problem : null"
    />
    <ProblemNote v-if="problem && problem.field !== 'password'" :problem="problem" />
    <ElButton type="primary" native-type="submit" :loading="busy">Sign in</ElButton>
  </form>
  <p v-if="session.session?.demo" class="demo">
    This is the demo of Reedmere Field Room.
    <ElButton :loading="busy" @click="signIn(session.session.demo.name, session.session.demo.password)">
      Sign in as {{ session.session.demo.name }}
    </ElButton>
  </p>
</template>

<style scoped>
form {
  display: grid;
  justify-items: start;
  gap: 12px;
  margin: 20px 0;
  padding: 20px;
}
.field {
  width: 100%;
}
.demo {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 12px;
  padding: 12px 20px;
  background: var(--deep-wash);
  border-left: 3px solid var(--deep);
}
</style>
