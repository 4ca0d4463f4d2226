<script setup lang="ts">
import { useSettings } from './stores/settings'

useSettings() // sets the theme before anything is drawn
</script>

<template>
  <RouterView />
</template>
