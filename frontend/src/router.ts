import { createRouter, createWebHistory } from 'vue-router';

import { useDrawing } from '@/stores/drawing';

import HomePage from './home/HomePage.vue';

export default createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', component: HomePage },
    {
      path: '/drawing/:id',
      component: () => import('./editor/EditorPage.vue'),
      beforeEnter: (to) => useDrawing().prepare(String(to.params.id)),
      props: (route) => ({ id: String(route.params.id) }),
    },
    { path: '/shelf', component: () => import('./shelf/ShelfPage.vue') },
    { path: '/:rest(.*)', component: () => import('./look/LostPage.vue') },
  ],
});
