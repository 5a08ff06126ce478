import { createStore, type Readable, useStore } from '../state/store';

/** The light that the screen is dressed for; `tokens.css` has the colours of each. */
export type Light = 'day' | 'night' | 'sun';
/** What a person asked for: one of them, or what the device says. */
export type LightWanted = 'device' | Light;

export const LIGHTS: readonly LightWanted[] = ['device', 'day', 'night', 'sun'];

const KEPT = 'emery light';

const ask = (question: string): MediaQueryList | null =>
  typeof window.matchMedia === 'function' ? window.matchMedia(question) : null;
const DARK = ask('(prefers-color-scheme: dark)');
const STRONG = ask('(prefers-contrast: more)');
const PRINTS = ask('print');

const kept = (): LightWanted => {
  try {
    const found = localStorage.getItem(KEPT);
    return LIGHTS.find((light) => light === found) ?? 'device';
  } catch {
    return 'device';
  }
};

const wanted = createStore<LightWanted>(kept());
/** True while the page is being printed: paper is white. */
const printing = createStore(false);

const lightNow = (): Light => {
  if (printing.get()) return 'day';
  const asked = wanted.get();
  if (asked !== 'device') return asked;
  if (DARK?.matches) return 'night';
  return STRONG?.matches ? 'sun' : 'day';
};

const light = createStore<Light>(lightNow());

export const lightWanted: Readable<LightWanted> = wanted;
export const useLight = (): Light => useStore(light);

/** Dresses the page for a light, and keeps that on this device. */
export function wantLight(next: LightWanted): void {
  wanted.set(next);
  try {
    localStorage.setItem(KEPT, next);
  } catch {
    // It holds as long as the page does.
  }
  follow();
}

function follow(): void {
  light.set(lightNow());
  const page = document.documentElement;
  page.dataset['light'] = light.get();
  document.querySelector('meta[name="theme-color"]')?.setAttribute('content', colourOf('--band') || '#1F5A4A');
}

/** Dresses the page from now on: by the switch, by what the device says, and in white on paper. */
export function followLight(): void {
  for (const query of [DARK, STRONG]) query?.addEventListener('change', follow);
  const print = (on: boolean) => () => {
    printing.set(on);
    follow();
  };
  window.addEventListener('beforeprint', print(true));
  window.addEventListener('afterprint', print(false));
  PRINTS?.addEventListener('change', ({ matches }) => print(matches)());
  window.addEventListener('storage', ({ key }) => {
    if (key !== KEPT) return;
    wanted.set(kept());
    follow();
  });
  follow();
}

let probe: HTMLElement | null = null;

/** A token's colour as the browser has it now, as `rgb(…)`, also where the token is a word of the system. */
export function colourOf(token: string): string {
  if (getComputedStyle(document.documentElement).getPropertyValue(token) === '') return '';
  if (!probe) {
    probe = document.createElement('i');
    probe.hidden = true;
    document.body.append(probe);
  }
  probe.style.color = `var(${token})`;
  return getComputedStyle(probe).color;
}

/** How large the reader has text, of the usual 16 px. */
export const textScale = (): number => (parseFloat(getComputedStyle(document.documentElement).fontSize) || 16) / 16;

/** How large what is pressed is at least, px. */
export function targetPx(): number {
  return parseFloat(getComputedStyle(document.documentElement).getPropertyValue('--target')) || 40;
}
