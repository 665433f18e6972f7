import { createRouter, createWebHistory } from 'vue-router'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/sign-in', name: 'sign-in', component: () => import('./screens/sign-in/SignInScreen.vue') },
    { path: '/', name: 'places', component: () => import('./screens/places/PlacesScreen.vue') },
    {
      path: '/editions/:edition(\\d+)',
      component: () => import('./parts/TeamShell.vue'),
      props: (route) => ({ edition: Number(route.params.edition) }),
      children: [
        {
          path: 'outline',
          name: 'outline',
          component: () => import('./screens/outline/OutlineScreen.vue'),
          props: (route) => ({ edition: Number(route.params.edition) }),
        },
      ],
    },
    {
      path: '/sections/:section(\\d+)',
      name: 'section',
      component: () => import('./screens/section/SectionScreen.vue'),
      props: (route) => ({ section: Number(route.params.section) }),
    },
    { path: '/:rest(.*)*', name: 'nothing', component: () => import('./screens/places/NothingScreen.vue') },
  ],
})
