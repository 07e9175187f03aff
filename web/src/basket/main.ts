import { createApp } from 'vue'
import '../shared/fonts'
import BasketApp from './BasketApp.vue'

createApp(BasketApp).mount('#app')
