import { chromium } from '@playwright/test';
const out = process.argv[2] ?? 'a';
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] });
const p = await (await b.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
p.on('pageerror', (e) => console.log('ERR', e.message)); p.on('console', (m) => m.type() === 'error' && console.log('CON', m.text().slice(0, 300)));
await p.goto('http://127.0.0.1:4711/'); await p.getByRole('link', { name: /Open Front drive of Rescue/ }).click();
await p.waitForSelector('.pulley');
for (const [n, s] of [[2, 'route'], [1, 'survey'], [3, 'size'], [4, 'speeds']]) { await p.keyboard.press(String(n)); await p.waitForTimeout(2500); await p.screenshot({ path: `/tmp/shots/${out}-${s}.png` }); }
await p.keyboard.press('2'); await p.waitForTimeout(300); await p.hover('[data-station] >> nth=1'); await p.waitForTimeout(200); await p.screenshot({ path: `/tmp/shots/${out}-hover.png` });
await b.close();
