import { createRouter, createWebHistory } from 'vue-router'

import { inItsSquad } from './composables/squadAddress'
import { account, whoAmI } from './composables/useAccount'
// The Bench comes with the first script: where most time is spent, and most of what it needs others need too.
import BenchScreen from './screens/bench/BenchScreen.vue'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'first', component: () => import('./screens/first/FirstScreen.vue'), meta: { ofSquad: true } },
    {
      path: '/sign-in',
      name: 'sign-in',
      component: () => import('./screens/sign-in/SignIn.vue'),
      meta: { open: true, door: true },
    },
    {
      path: '/join',
      name: 'join',
      component: () => import('./screens/join/JoinScreen.vue'),
      meta: { open: true, door: true },
    },
    {
      path: '/reset',
      name: 'reset',
      component: () => import('./screens/join/ResetScreen.vue'),
      meta: { open: true, door: true },
    },
    {
      path: '/me',
      name: 'me',
      component: () => import('./screens/me/MeScreen.vue'),
      meta: { open: true, whole: true, alone: true },
    },
    {
      path: '/privacy',
      name: 'privacy',
      component: () => import('./screens/privacy/PrivacyScreen.vue'),
      meta: { open: true },
    },
    {
      path: '/people',
      name: 'people',
      component: () => import('./screens/people/PeopleScreen.vue'),
      meta: { ofSquad: true },
    },
    { path: '/people/:id', name: 'person', component: () => import('./screens/people/PersonScreen.vue'), props: true },
    {
      path: '/squad',
      name: 'squad',
      component: () => import('./screens/squad/SquadScreen.vue'),
      meta: { ofSquad: true },
    },
    { path: '/account', name: 'account', component: () => import('./screens/account/AccountScreen.vue') },
    {
      path: '/bench',
      name: 'sessions',
      component: () => import('./screens/bench/SessionList.vue'),
      meta: { ofSquad: true },
    },
    {
      path: '/today',
      name: 'today',
      component: () => import('./screens/floor/TodayScreen.vue'),
      meta: { ofSquad: true },
    },
    {
      path: '/floor/start/:entry',
      name: 'before',
      component: () => import('./screens/floor/BeforeScreen.vue'),
      props: true,
      meta: { whole: true },
    },
    {
      path: '/floor/:id',
      name: 'floor',
      component: () => import('./screens/floor/FloorScreen.vue'),
      props: true,
      meta: { whole: true, keyed: true },
    },
    {
      path: '/floor/scores/:entry',
      name: 'scores',
      component: () => import('./screens/floor/ScoresScreen.vue'),
      props: true,
      meta: { keyed: true },
    },
    {
      path: '/wall',
      name: 'wall',
      component: () => import('./screens/wall/WallScreen.vue'),
      meta: { open: true, whole: true },
    },
    {
      path: '/movements',
      name: 'movements',
      component: () => import('./screens/movements/MovementsScreen.vue'),
      meta: { ofSquad: true },
    },
    {
      path: '/methods',
      name: 'methods',
      component: () => import('./screens/methods/MethodsScreen.vue'),
      meta: { ofSquad: true },
    },
    { path: '/bench/:id', name: 'bench', component: BenchScreen, props: true },
    { path: '/bench/:id/card', name: 'card', component: () => import('./screens/card/CardScreen.vue'), props: true },
    { path: '/week', name: 'week', component: () => import('./screens/week/WeekScreen.vue'), meta: { ofSquad: true } },
    {
      path: '/week/season',
      name: 'season',
      component: () => import('./screens/week/SeasonScreen.vue'),
      meta: { ofSquad: true },
    },
    { path: '/log', name: 'log', component: () => import('./screens/log/LogScreen.vue'), meta: { ofSquad: true } },
    {
      path: '/log/entries/:id',
      name: 'logged',
      component: () => import('./screens/log/LogEntryScreen.vue'),
      props: true,
    },
    {
      path: '/log/entries/:id/ratings',
      name: 'ratings',
      component: () => import('./screens/log/RateScreen.vue'),
      props: true,
      meta: { whole: true },
    },
    {
      path: '/log/people/:id',
      name: 'person-log',
      component: () => import('./screens/log/PersonLogScreen.vue'),
      props: true,
    },
    {
      path: '/side-by-side',
      name: 'side-by-side',
      component: () => import('./screens/side-by-side/SideBySideScreen.vue'),
      meta: { ofSquad: true },
    },
    { path: '/:rest(.*)*', name: 'nowhere', component: () => import('./screens/NowhereScreen.vue') },
  ],
})

router.beforeEach(async (to) => {
  // The page of an own link is asked for without a network too, and not by whoever is signed in.
  if (to.name === 'sign-in' || to.meta.alone) return true
  if (to.meta.open) {
    if (account.value === null) await whoAmI()
    return true
  }
  // The screen is fetched while it is asked who is there, not after.
  for (const { components } of to.matched) {
    const screen = components?.default
    // One that cannot be fetched is told of when the router needs it.
    if (typeof screen === 'function') void (screen as () => Promise<unknown>)().catch(() => undefined)
  }
  if (account.value === null) await whoAmI()
  return account.value === null ? { name: 'sign-in', query: { next: to.fullPath } } : inItsSquad(to)
})
