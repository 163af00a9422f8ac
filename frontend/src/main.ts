import '@fontsource-variable/outfit';
import '@fontsource/ibm-plex-mono/latin-400.css';
import './look/base.css';

import { createPinia } from 'pinia';
import { createApp } from 'vue';

import App from './App.vue';
import vuetify from './look/theme';
import router from './router';

createApp(App).use(createPinia()).use(router).use(vuetify).mount('#app');

// The page stays at hand in the browser while the server is away.
if (import.meta.env.PROD)
  void navigator.serviceWorker?.register('/offline.js').then(async () => {
    // Before it controls this page nothing that is fetched goes through it.
    if (!navigator.serviceWorker.controller)
      await new Promise((done) => {
        navigator.serviceWorker.addEventListener('controllerchange', done, { once: true });
      });
    const parts = performance
      .getEntriesByType('resource')
      .map(({ name }) => new URL(name).pathname);
    await Promise.all(
      ['/', ...parts.filter((path) => path.startsWith('/assets/'))].map((path) => fetch(path)),
    );
  });
