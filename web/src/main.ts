import '@fontsource-variable/atkinson-hyperlegible-next/wght.css'
import '@fontsource-variable/fraunces/wght.css'
import { MutationCache, QueryCache, QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { createApp } from 'vue'
import App from './App.vue'
import { problemOf } from './foundation/api/client'
import { nonce } from './foundation/profile'
import { leadToSignIn } from './foundation/session'
import './look/paper.css'
import './look/controls.css'
import { layPaper } from './look/usePaper'
import { makeVuetify } from './look/vuetify'
import { holdUnread } from './parts/fields/useTyped'
import { router } from './router'

layPaper()
holdUnread()
const onError = leadToSignIn(router, () => client)
const client: QueryClient = new QueryClient({
  queryCache: new QueryCache({ onError }),
  mutationCache: new MutationCache({ onError }),
  defaultOptions: {
    queries: {
      staleTime: 30_000,
      // What one may not see, or must mend, is no better a second later.
      retry: (times, error) => {
        const { status } = problemOf(error)
        return times < 4 && (status === 0 || status >= 500)
      },
    },
  },
})
createApp(App).use(router).use(VueQueryPlugin, { queryClient: client }).use(makeVuetify(nonce)).mount('#app')
