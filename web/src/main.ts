import '@fontsource/b612/latin-400.css'
import '@fontsource/b612/latin-700.css'
import '@fontsource/ibm-plex-sans-condensed/latin-400.css'
import '@fontsource/ibm-plex-sans-condensed/latin-500.css'
import '@fontsource/ibm-plex-sans-condensed/latin-600.css'
import './styles/base.css'

import { createPinia } from 'pinia'
import { createApp } from 'vue'

import { Problem } from './api/connection'
import App from './App.vue'
import { router } from './router'
import { keepUpWithReleases } from './releases'

keepUpWithReleases(router)
const app = createApp(App)
/** That there is no connection is said by the banner, wherever it was noticed; anything else goes on its way. */
const isSaid = (error: unknown) => error instanceof Problem && error.code === 'unreachable'
app.config.errorHandler = (error) => {
  if (!isSaid(error)) reportError(error)
}
window.addEventListener('unhandledrejection', (event) => {
  if (isSaid(event.reason)) event.preventDefault()
})
app.use(createPinia()).use(router).mount('#app')
