/** Whether the page is as narrow as a telephone's: some parts are then made otherwise, not only laid out otherwise. */
import { MediaQuery } from 'svelte/reactivity'

export const narrow = new MediaQuery('screen and (max-width: 560px)')
