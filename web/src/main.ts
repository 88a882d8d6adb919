import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import '@fontsource-variable/bricolage-grotesque/wght.css';
import { PiniaColada } from '@pinia/colada';
import { createPinia } from 'pinia';
import { registerSW } from 'virtual:pwa-register';
import { createApp } from 'vue';
import App from './App.vue';
import { vuetify } from './plugins/vuetify.ts';
import { reopenPlaces } from './router/reopen-places.ts';
import { router } from './router/router.ts';
import { useNotices } from './stores/notices.ts';
import './styles.css';

reopenPlaces(router, () =>
  useNotices().warn('This place could not be loaded. Look at the connection, and open it again.'),
);
createApp(App).use(createPinia()).use(PiniaColada).use(router).use(vuetify).mount('#app');

// Installs as an application, and opens without a connection. Not while developing, where it would serve old code.
if (import.meta.env.PROD) registerSW({ immediate: true });
