import 'element-plus/theme-chalk/base.css'
import { VueQueryPlugin } from '@tanstack/vue-query'
import { createApp } from 'vue'
import '../shared/fonts'
import './desk.css'
import DeskApp from './DeskApp.vue'
import { i18n } from '../text/desk'
import { queries } from './queries'
import { router } from './router'

createApp(DeskApp).use(router).use(i18n).use(VueQueryPlugin, { queryClient: queries }).mount('#app')
