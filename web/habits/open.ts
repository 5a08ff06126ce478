import { createStore } from '../state/store';

/** True while a person's settings are open: they stay so while the page beneath is drawn anew in other figures. */
export const habitsOpen = createStore(false);
