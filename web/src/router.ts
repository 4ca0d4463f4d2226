import { createRouter, createWebHistory } from 'vue-router'

import { useSession } from './stores/session'

export const STOPS = ['measure', 'shape', 'join', 'lay-out', 'prove', 'hand-over'] as const

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/sign-in', name: 'sign-in', component: () => import('./views/SignInView.vue') },
    { path: '/', name: 'home', component: () => import('./views/HomeView.vue') },
    { path: '/check', name: 'check', component: () => import('./views/CheckView.vue') },
    { path: '/rack/:id(\\d+)?', name: 'rack', component: () => import('./views/RackView.vue') },
    { path: '/machines/:id(\\d+)?', name: 'machines', component: () => import('./views/MachinesView.vue') },
    { path: '/notebook', name: 'notebook', component: () => import('./views/NotebookView.vue') },
    {
      path: '/jobs/:id(\\d+)',
      component: () => import('./views/JobView.vue'),
      children: [
        { path: '', redirect: (to) => ({ name: 'shape', params: to.params }) },
        { path: 'measure', name: 'measure', component: () => import('./views/MeasureStop.vue') },
        { path: 'shape', name: 'shape', component: () => import('./views/ShapeStop.vue') },
        { path: 'join', name: 'join', component: () => import('./views/JoinStop.vue') },
        { path: 'lay-out', name: 'lay-out', component: () => import('./views/LayOutStop.vue') },
        { path: 'prove', name: 'prove', component: () => import('./views/ProveStop.vue') },
        { path: 'hand-over', name: 'hand-over', component: () => import('./views/HandOverStop.vue') },
      ],
    },
    { path: '/:rest(.*)*', redirect: { name: 'home' } },
  ],
})

router.beforeEach(async (to) => {
  const { name } = await useSession().load()
  if (!name && to.name !== 'sign-in') return { name: 'sign-in', query: { to: to.fullPath } }
  return name && to.name === 'sign-in' ? { name: 'home' } : true
})
