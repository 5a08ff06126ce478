/* global document, getComputedStyle */

/*
 * Presses, writes and drags at random, by a seed, and looks after each whether the page is still sound: no error, no
 * figure that is none, no white page, and the focus somewhere after a dialog is closed.
 */

/** Random numbers from 0 to below 1 that are the same for the same seed (a linear congruential generator, MMIX). */
export function drawsFrom(seed) {
  let state = BigInt(seed) * 2862933555777941757n + 3037000493n;
  return () => {
    state = (state * 6364136223846793005n + 1442695040888963407n) & 0xffffffffffffffffn;
    return Number(state >> 11n) / 2 ** 53;
  };
}

const TEXTS = ['7', '12 3/8', '-4', '0', '', '99999999', 'x?', '6PK1750', '1e9', '½', '🛠', 'half a rib out', '   '];
const KEYS = ['Escape', 'Enter', 'Tab', 'ArrowUp', 'ArrowLeft', '1', '2', '3', '5', '7', '9', '0', 'c', '?', 'Delete'];
const USABLE =
  'button:not(:disabled), input:not([type="file"]):not(:disabled), textarea, select, [role="slider"], [role="switch"], ' +
  '[role="combobox"], [role="menuitem"], .ant-select-item-option, summary, a[href^="/"]:not([href*="/api/"]), ' +
  '[data-station], .piece';
/** Not pressed: what opens the system's own sheet, or leaves for a file. */
const LET_BE = /print|download|export|save as (pdf|svg|dxf)|import|choose|picture|photo|record/i;

/** What is wrong with the page as it stands; null where nothing is. */
const faultOf = (page) =>
  page.evaluate(() => {
    const root = document.querySelector('#root');
    if (!root || root.textContent.trim() === '')
      return root?.querySelector('.waiting, .ant-spin') ? null : 'a white page';
    const text = document.body.innerText;
    const bad = /\b(NaN|undefined|Infinity|\[object \w+\])\b/.exec(text);
    if (bad) return `the page reads "${text.slice(Math.max(0, bad.index - 40), bad.index + 40).replaceAll('\n', ' ')}"`;
    const odd = [...document.querySelectorAll('svg *')].find((shape) =>
      ['d', 'x', 'y', 'cx', 'cy', 'r', 'width', 'height', 'transform', 'points'].some((name) =>
        /NaN|undefined|Infinity/.test(shape.getAttribute(name) ?? ''),
      ),
    );
    return odd ? `a shape ${odd.outerHTML.slice(0, 160)}` : null;
  });

/**
 * One thing done at random on the page; says what.
 *
 * @param {import('@playwright/test').Page} page
 * @param {() => number} draw
 */
async function act(page, draw) {
  const pick = (list) => list[Math.floor(draw() * list.length)];
  const kind = draw();
  if (kind < 0.12) {
    const key = draw() < 0.35 ? pick(['Control+z', 'Control+Shift+z']) : pick(KEYS);
    await page.keyboard.press(key);
    return `key ${key}`;
  }
  const found = await page.evaluateHandle(
    ([usable, share]) => {
      const seen = [...document.querySelectorAll(usable)].filter((node) => {
        const { width, height } = node.getBoundingClientRect();
        return width > 0 && height > 0 && getComputedStyle(node).visibility !== 'hidden';
      });
      // What lies over the page is used before what lies under it.
      const over = seen.filter((node) => node.closest('.ant-modal, .ant-dropdown, .ant-select-dropdown'));
      const from = over.length > 0 ? over : seen;
      return from[Math.floor(share * from.length)] ?? null;
    },
    [USABLE, draw()],
  );
  const element = found.asElement();
  if (!element) return 'nothing to press';
  const { name, tag, type, slider } = await element.evaluate((node) => ({
    name: (node.getAttribute('aria-label') ?? node.labels?.[0]?.textContent ?? node.textContent ?? '')
      .trim()
      .slice(0, 60),
    tag: node.tagName,
    type: node.type ?? '',
    slider: node.getAttribute('role') === 'slider',
  }));
  if (LET_BE.test(name)) return `left alone: ${name}`;
  if (tag === 'TEXTAREA' || (tag === 'INPUT' && !/radio|checkbox/.test(type))) {
    const text = pick(TEXTS);
    await element.fill(text, { timeout: 700 });
    if (draw() < 0.7) await page.keyboard.press('Enter');
    return `${name} is written "${text}"`;
  }
  const box = await element.boundingBox();
  if (box && (slider || (tag === 'g' && draw() < 0.5))) {
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    for (let step = 1; step <= 4; step += 1)
      await page.mouse.move(box.x + box.width / 2 + step * 12 * (draw() - 0.5), box.y + step * 12 * (draw() - 0.5));
    await page.mouse.up();
    return `${name || tag} is dragged`;
  }
  const dialogs = () => page.locator('.ant-modal').count();
  const [before, address] = [await dialogs(), page.url()];
  await element.click({ timeout: 700 });
  if (before > (await dialogs())) {
    await page.waitForTimeout(60);
    // Another page begins at its top.
    if (page.url() !== address) return `${name || tag} leads elsewhere`;
    const lost = await page.evaluate(() => document.activeElement === null || document.activeElement === document.body);
    if (lost) throw new Error(`the focus is lost after the dialog that ${name} closed`);
  }
  return `${name || tag} is pressed`;
}

/**
 * Lets the monkey loose on a page for so long, or so many actions. Resolves with what went wrong, each with the last
 * that was done before it.
 *
 * @param {import('@playwright/test').Page} page
 * @param {{ seed: number, starts: readonly string[], forMs?: number, actions?: number, mostFaults?: number }} options
 */
export async function letLoose(page, { seed, starts, forMs = Infinity, actions = Infinity, mostFaults = 10 }) {
  const draw = drawsFrom(seed);
  const done = [];
  const faults = [];
  const tell = (what) => faults.push(`${what}\n    after ${done.slice(-8).join('; ')}`);
  page.on('pageerror', (error) => tell(`error: ${error.message}`));
  page.on('dialog', (dialog) => void dialog.accept().catch(() => undefined));
  const until = Date.now() + forMs;
  for (let count = 0; count < actions && Date.now() < until && faults.length < mostFaults; count += 1) {
    if (count % 60 === 0) {
      const start = starts[Math.floor(draw() * starts.length)];
      await page.goto(start);
      await page.waitForTimeout(400);
      done.push(`opened ${start}`);
    }
    try {
      done.push(await act(page, draw));
    } catch (error) {
      // What is covered, or gone meanwhile, is no fault of the page.
      if (/focus is lost/.test(error.message)) tell(error.message);
    }
    const fault = await faultOf(page).catch(() => null);
    if (fault) {
      // Looked at again: it may have been between two pages.
      await page.waitForTimeout(400);
      const still = await faultOf(page).catch(() => null);
      if (still) tell(still);
    }
  }
  return { count: done.length, faults };
}
