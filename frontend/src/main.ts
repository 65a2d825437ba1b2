import '@fontsource/barlow-condensed/latin-500.css'
import '@fontsource/barlow-condensed/latin-600.css'
import '@fontsource/source-sans-3/latin-400.css'
import '@fontsource/source-sans-3/latin-600.css'
import 'element-plus/theme-chalk/base.css'
import './styles/tokens.css'
import './styles/base.css'
import './styles/controls.css'
import './styles/forced.css'
import './styles/print.css'

import { VueQueryPlugin } from '@tanstack/vue-query'
import { createApp } from 'vue'

import { queryClient } from './api/query'
import App from './App.vue'
import { report } from './faults'
import { router } from './router'
import { speak, spokenOf } from './words/language'

const app = createApp(App)
app.config.errorHandler = report
window.addEventListener('unhandledrejection', (event) => report(event.reason))
router.onError(report)
// Not awaited at the top: what comes with the first script would then come in many.
// A language that cannot be fetched is no reason to show nothing: then it is English.
void speak(spokenOf(navigator.languages))
  .catch(report)
  .then(() => app.use(router).use(VueQueryPlugin, { queryClient }).mount('#app'))
