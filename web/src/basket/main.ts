import { createApp } from 'vue'
import '../ui/fonts'
import BasketApp from './BasketApp.vue'

createApp(BasketApp).mount('#app')
