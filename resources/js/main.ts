import '@fontsource-variable/atkinson-hyperlegible-next/wght.css'
import '@fontsource-variable/atkinson-hyperlegible-mono/wght.css'
import '@/style/digits.css'
import 'element-plus/dist/index.css'
import '@/style/tokens.css'
import '@/style/element-plus.css'
import '@/style/page.css'

import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { createApp } from 'vue'
import { ApiProblem } from '@/api/client'
import App from '@/App.vue'
import { useElementPlus } from '@/elementPlus'
import { router } from '@/router'

const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      // A problem that the server explained does not go away by asking again; a lost connection may, and a database that is away comes back.
      retry: (failures, error) => (error instanceof ApiProblem ? error.status === 503 && failures < 20 : failures < 2),
      retryDelay: (failures, error) => (error instanceof ApiProblem ? 3000 : Math.min(1000 * 2 ** failures, 8000)),
      refetchOnWindowFocus: false,
      // What was answered is never changed, only replaced: to watch each value of two hundred findings costs a tenth of what it takes to show them.
      shallow: true,
    },
  },
})

useElementPlus(createApp(App)).use(router).use(VueQueryPlugin, { queryClient }).mount('#page')
