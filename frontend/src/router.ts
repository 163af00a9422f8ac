import { createRouter, createWebHistory } from 'vue-router';

import { useDrawing } from '@/stores/drawing';
import { useNotices } from '@/stores/notices';

import HomePage from './home/HomePage.vue';

const RETRY_MS = 1000;

const router = createRouter({
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

/** Which of the ways that could not be gone was asked for last. */
let asked = 0;

/**
 * A page whose parts could not be fetched is asked for whole, once it can be.
 *
 * The browser keeps parts that failed as failed, and after an update theirs have other names.
 */
router.onError(async (_error, to) => {
  const mine = ++asked;
  useNotices().say('Dot Stack cannot be reached; trying again…');
  let there = false;
  while (!there) {
    await new Promise((done) => setTimeout(done, RETRY_MS));
    if (mine !== asked) return;
    there = await fetch(to.fullPath).then(
      ({ ok }) => ok,
      () => false,
    );
  }
  location.assign(to.fullPath);
});

/** Whoever goes elsewhere meanwhile waits for it no longer. */
router.afterEach((_to, _from, failure) => void (failure || (asked += 1)));

export default router;
