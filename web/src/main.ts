import '@fontsource-variable/archivo/wdth.css'
import './app.css'
import { mount } from 'svelte'
import App from './App.svelte'
import { keepReadable } from './lib/offline.svelte'

mount(App, { target: document.getElementById('app')! })
keepReadable()
