import '@fontsource-variable/outfit';
import '@fontsource/ibm-plex-mono/latin-400.css';
import './look/base.css';

import { createPinia } from 'pinia';
import { createApp } from 'vue';

import App from './App.vue';
import vuetify from './look/theme';
import router from './router';

createApp(App).use(createPinia()).use(router).use(vuetify).mount('#app');
