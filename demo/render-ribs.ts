/*
 * Makes the demo shop's close-up: the cut end of the rescue truck's belt, made up with a known depth, as a hand-held
 * camera would see it. Writes demo/1-rescue-truck-ribs.jpg, and prints what Emery finds in it for the drive file beside
 * it. Run with: npx tsx demo/render-ribs.ts
 */
import { createHash } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import { findRibs, makeRibs, readMarks, RIBS_AS_NEW } from '@emery/core/inspect/ribs';

const FILE = fileURLToPath(new URL('./1-rescue-truck-ribs.jpg', import.meta.url));
const DEPTH_MM = 2.36;
const [WIDTH, HEIGHT] = [1200, 640];
/** Rubber is a little blue beside the paper. */
const TINT = [1.01, 1, 0.97];

const { picture } = makeRibs({
  ...RIBS_AS_NEW,
  depthMm: DEPTH_MM,
  floorMm: 0.85,
  floorRoundMm: 0.3,
  width: WIDTH,
  height: HEIGHT,
  pxPerMm: 42,
  rollDeg: 7,
  yawDeg: -8,
  tiltDeg: 5,
  blurPx: 1.8,
  noise: 5,
  seed: 20261126,
});
const colours = Buffer.alloc(WIDTH * HEIGHT * 3);
picture.data.forEach((grey, k) =>
  TINT.forEach((tint, c) => (colours[3 * k + c] = Math.max(0, Math.min(255, Math.round(grey * tint))))),
);
const jpeg = await sharp(colours, { raw: { width: WIDTH, height: HEIGHT, channels: 3 } })
  .jpeg({ quality: 84 })
  .toBuffer();
writeFileSync(FILE, jpeg);

const { data } = await sharp(jpeg).greyscale().raw().toBuffer({ resolveWithObject: true });
const found = findRibs({ width: WIDTH, height: HEIGHT, data }, RIBS_AS_NEW.pitchMm);
if (!found.ok) throw new Error(found.why);
const reading = readMarks(found.marks, RIBS_AS_NEW.pitchMm);
if (!reading.ok) throw new Error(reading.why);
process.stdout.write(
  `${JSON.stringify({
    value: Number(reading.depthMm.at.toFixed(3)),
    plusMinus: Number(reading.depthMm.sigma.toFixed(3)),
    profile: found.profile,
    photo: { hash: createHash('sha256').update(jpeg).digest('hex'), width: WIDTH, height: HEIGHT },
    marks: found.marks,
  })}\n`,
);
