import { createApp } from 'vue';
import App from './App.vue';
import './styles/line.scss';

createApp(App).mount('#app');
