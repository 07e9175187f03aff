import 'element-plus/theme-chalk/base.css'
import { createApp } from 'vue'
import '../shared/fonts'
import './desk.css'
import DeskApp from './DeskApp.vue'
import { i18n } from '../text/desk'
import { router } from './router'

createApp(DeskApp).use(router).use(i18n).mount('#app')
