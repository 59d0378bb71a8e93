/** Whether the page is on its way to paper, where nothing scrolls: what is drawn only near the view is drawn whole. */
import { MediaQuery } from 'svelte/reactivity'

export const printing = new MediaQuery('print')
