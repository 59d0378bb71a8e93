import '../.fonts/fonts.css'
import { mount } from 'svelte'
import './app.css'
import App from './App.svelte'
import { keepOffline } from './lib/offline.svelte'

const target = document.getElementById('app')
if (!target) throw new Error('The page has no place for the application.')
void keepOffline()
export default mount(App, { target })
