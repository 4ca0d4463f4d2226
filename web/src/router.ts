import { createRouter, createWebHistory } from 'vue-router'

import { useSession } from './stores/session'
import { visit } from './visited'

export const STOPS = ['measure', 'shape', 'join', 'lay-out', 'prove', 'hand-over'] as const

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    {
      path: '/sign-in',
      name: 'sign-in',
      meta: { title: 'Sign in' },
      component: () => import('./views/SignInView.vue'),
    },
    { path: '/', name: 'home', meta: { title: 'Jobs' }, component: () => import('./views/HomeView.vue') },
    {
      path: '/start/:recipe',
      name: 'start',
      meta: { title: 'Start' },
      component: () => import('./views/StartView.vue'),
    },
    {
      path: '/newer',
      name: 'newer',
      meta: { title: 'Newer in the workshop' },
      component: () => import('./views/TodayView.vue'),
    },
    {
      path: '/check',
      name: 'check',
      meta: { title: 'Check a drawing' },
      component: () => import('./views/CheckView.vue'),
    },
    {
      path: '/rack/:id(\\d+)?',
      name: 'rack',
      meta: { title: 'Stock rack' },
      component: () => import('./views/RackView.vue'),
    },
    {
      path: '/rack/:id(\\d+)/measure',
      name: 'at-the-rack',
      meta: { title: 'Measure a board' },
      component: () => import('./views/AtTheRackView.vue'),
    },
    {
      path: '/machines/:id(\\d+)?',
      name: 'machines',
      meta: { title: 'Machines' },
      component: () => import('./views/MachinesView.vue'),
    },
    {
      path: '/settings',
      name: 'settings',
      meta: { title: 'Settings' },
      component: () => import('./views/SettingsView.vue'),
    },
    {
      path: '/notebook',
      name: 'notebook',
      meta: { title: 'Kerf notebook' },
      component: () => import('./views/NotebookView.vue'),
    },
    {
      path: '/jobs/:id(\\d+)',
      component: () => import('./views/JobView.vue'),
      children: [
        { path: '', redirect: (to) => ({ name: 'shape', params: to.params }) },
        {
          path: 'measure',
          name: 'measure',
          meta: { title: 'Measure' },
          component: () => import('./views/MeasureStop.vue'),
        },
        {
          path: 'shape',
          name: 'shape',
          meta: { title: 'Shape' },
          component: () => import('./views/ShapeStop.vue'),
        },
        {
          path: 'join',
          name: 'join',
          meta: { title: 'Join' },
          component: () => import('./views/JoinStop.vue'),
        },
        {
          path: 'lay-out',
          name: 'lay-out',
          meta: { title: 'Lay out' },
          component: () => import('./views/LayOutStop.vue'),
        },
        {
          path: 'prove',
          name: 'prove',
          meta: { title: 'Prove' },
          component: () => import('./views/ProveStop.vue'),
        },
        {
          path: 'hand-over',
          name: 'hand-over',
          meta: { title: 'Hand over' },
          component: () => import('./views/HandOverStop.vue'),
        },
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

router.afterEach(({ name, params }) => {
  if ((STOPS as readonly unknown[]).includes(name)) visit(Number(params['id']), String(name))
})

/** Where the focus was taken away with the old view, it starts at the new view's main part. */
router.afterEach((to, from) => {
  if (!from.matched.length || to.path === from.path) return
  requestAnimationFrame(() => {
    if (document.activeElement === document.body)
      document.getElementById('main')?.focus({ preventScroll: true })
  })
})
