import { readFileSync } from 'node:fs';
import { fillShop } from './fill-shop';
import { parseDrive, withoutBeside } from '@emery/core/drive';

/** Run by `npm run seed`: so many more vehicles in the shop at `EMERY_DATABASE_URL`, four of the demo's drives each. */
const file = new URL('../../demo/2-hill-farm-pickup.emery.json', import.meta.url);
const reading = parseDrive(readFileSync(file, 'utf8'));
if (!reading.ok) throw new Error(`the demo drive cannot be read: ${reading.problems[0]!.message}`);
await fillShop(process.env['EMERY_DATABASE_URL'] ?? '', 4 * Number(process.argv[2]), withoutBeside(reading.drive));
