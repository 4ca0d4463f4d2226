<script setup lang="ts">
import { ref } from 'vue'

import SignInForm from './SignInForm.vue'

/** Signing in again over the page as it is: nothing typed is lost. */
const emit = defineEmits<{ close: [] }>()
const open = ref(true)
</script>

<template>
  <ElDialog v-model="open" title="Sign in again" width="26rem" append-to-body @closed="emit('close')">
    <SignInForm @done="open = false" />
  </ElDialog>
</template>
