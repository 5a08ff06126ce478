import { letLoose } from '../scripts/lib/monkey.mjs';
import { expect, test } from './emery';

const PAGES = {
  'a figure that is none':
    '<div id="root"><button onclick="this.nextSibling.textContent = 0 / 0">Sum</button><p>1</p></div>',
  'a shape that is none':
    '<div id="root"><button onclick="document.querySelector(\'path\').setAttribute(\'d\', \'M0 NaN\')">Draw</button><svg><path d="M0 0"/></svg></div>',
  'an error': '<div id="root"><button onclick="nothing.there()">Run</button></div>',
  'a white page':
    '<div id="root"><button onclick="document.querySelector(\'#root\').innerHTML = \'\'">Go</button></div>',
  'a dialog that loses the focus':
    '<div id="root">Page<div class="ant-modal"><button onclick="this.parentNode.remove()">Close</button></div></div>',
};

test('the monkey tells of what is wrong with a page', async ({ page }) => {
  for (const [what, html] of Object.entries(PAGES)) {
    const start = `data:text/html,${encodeURIComponent(html)}`;
    const { faults } = await letLoose(page, { seed: 1, starts: [start], actions: 14, mostFaults: 1 });
    expect(faults.length, what).toBeGreaterThan(0);
    expect(faults[0]).toMatch(/NaN|nothing is not defined|white page|focus is lost/);
  }
});

test('a sound page has nothing to tell, and the same seed does the same', async ({ page }) => {
  const html = '<div id="root"><button>One</button><button>Two</button><input aria-label="Text"></div>';
  const start = `data:text/html,${encodeURIComponent(html)}`;
  const runs = [];
  for (let run = 0; run < 2; run += 1) runs.push(await letLoose(page, { seed: 5, starts: [start], actions: 8 }));
  expect(runs[0]!.faults).toEqual([]);
  expect(runs[1]).toEqual(runs[0]);
});

if (process.env['EMERY_THOROUGH'] === '1')
  test('two hundred things done at random leave the app sound', async ({ page, emery }) => {
    test.slow();
    const ids = await Promise.all(['Front drive', 'Fan and alternator belts'].map((name) => emery.drive(name)));
    const starts = ['/', '/counter', ...ids.map(({ id }) => `/drives/${id}`)];
    const { faults } = await letLoose(page, { seed: 20, starts, actions: 200 });
    expect(faults).toEqual([]);
  });
