import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import '@fontsource-variable/bricolage-grotesque/wght.css';
import { PiniaColada } from '@pinia/colada';
import { createPinia } from 'pinia';
import { createApp } from 'vue';
import App from './App.vue';
import { vuetify } from './plugins/vuetify.ts';
import { router } from './router/router.ts';
import './styles.css';

createApp(App).use(createPinia()).use(PiniaColada).use(router).use(vuetify).mount('#app');
