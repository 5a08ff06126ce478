/*
 * Makes the demo shop's picture: the rescue truck's drive as a hand-held camera would see it, tilted, in perspective
 * and with grain, so that the true places of what it shows are known. Writes demo/1-rescue-truck.jpg and the picture's
 * entry, marked as by hand, into the drive file beside it. Run with: npx tsx demo/render-picture.ts
 */
import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import { type Drive, parseDrive, type PicturePoint, putItem, writeDrive } from '@emery/core/drive';
import { solveDrive } from '@emery/core/path';
import { type Camera, lineOfSight, toPicture } from '@emery/core/survey/photo';

const FILE = fileURLToPath(new URL('./1-rescue-truck.emery.json', import.meta.url));
const WIDTH = 1600;
const HEIGHT = 1200;
/** The drive's own place under the optical axis, mm, and how far the camera was rolled, radians. */
const AIM = { x: 14, y: 158 };
const ROLL = 0.03;
const CAMERA: Camera = { pitch: 0.16, yaw: -0.22, focal: 1240, distance: 680, cx: WIDTH / 2, cy: HEIGHT / 2 };
const WALL_Z = -58;
const KNOWN = ['crank-1', 'ac-1'];

type Colour = readonly [number, number, number];
const RUBBER: Colour = [44, 47, 48];
const ALLOY: Colour = [176, 180, 178];
const STEEL: Colour = [138, 143, 143];
const CASTING: Colour = [112, 116, 112];

const random = (() => {
  let state = 20261124;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
})();
const normal = () => Math.sqrt(-2 * Math.log(random() || 1e-9)) * Math.cos(2 * Math.PI * random());

const reading = parseDrive(readFileSync(FILE, 'utf8'));
if (!reading.ok) throw new Error(reading.problems[0]!.message);
const drive = reading.drive;

/** From the drive's own x and y to those of the camera's frame, and back. */
const inFrame = (x: number, y: number): [number, number] => [
  Math.cos(ROLL) * (x - AIM.x) - Math.sin(ROLL) * (y - AIM.y),
  Math.sin(ROLL) * (x - AIM.x) + Math.cos(ROLL) * (y - AIM.y),
];

const image = await sharp(paint(drive), { raw: { width: WIDTH, height: HEIGHT, channels: 3 } })
  .blur(0.7)
  .raw()
  .toBuffer();
for (let k = 0; k < image.length; k += 3) {
  const grain = 7 * normal();
  for (let c = 0; c < 3; c += 1) image[k + c] = Math.max(0, Math.min(255, image[k + c]! + grain + 2 * normal()));
}
const jpeg = await sharp(image, { raw: { width: WIDTH, height: HEIGHT, channels: 3 } })
  .jpeg({ quality: 80 })
  .toBuffer();
writeFileSync(FILE.replace('.emery.json', '.jpg'), jpeg);

const rims = drive.stations.flatMap(({ x, y, pulleys }) =>
  pulleys.map(({ id, diameter, plane = 0 }) => ({
    pulley: id,
    ...(KNOWN.includes(id) && { known: true }),
    points: Array.from({ length: 8 }, (_, k): PicturePoint => {
      const turn = (k + 0.5 * random()) * (Math.PI / 4);
      const [u, v] = toPicture(
        CAMERA,
        ...inFrame(x + (diameter! / 2) * Math.cos(turn), y + (diameter! / 2) * Math.sin(turn)),
        plane,
      );
      return [round(u + 0.6 * normal()), round(v + 0.6 * normal())];
    }),
  })),
);
const hash = createHash('sha256').update(jpeg).digest('hex');
writeFileSync(
  FILE,
  pointsOnOneLine(
    writeDrive(
      putItem(drive, 'survey.photos', {
        id: 'photo-1',
        hash,
        width: WIDTH,
        height: HEIGHT,
        cameraDistance: CAMERA.distance,
        cropped: false,
        rims,
      }),
    ),
  ),
);
process.stdout.write(`${hash} ${Math.round(jpeg.length / 1000)} kB\n`);

/** Every pixel from four rays, each followed from the front to the first thing it meets. */
function paint(seen: Drive): Buffer {
  const pixels = Buffer.alloc(WIDTH * HEIGHT * 3);
  const sight = lineOfSight(CAMERA);
  const discs = seen.stations.flatMap((station) =>
    station.pulleys.map((pulley) => ({
      at: inFrame(station.x, station.y),
      r: pulley.diameter! / 2,
      smooth: pulley.surface === 'smooth',
      face: pulley.plane ?? 0,
      holes: station.role === 'idler' || station.role === 'tensioner' ? 0 : station.role === 'crankshaft' ? 4 : 5,
    })),
  );
  const belt = beltOn(seen);
  const slices = Array.from({ length: 15 }, (_, k) => -2 - 2 * k);
  for (let row = 0; row < HEIGHT; row += 1) {
    for (let column = 0; column < WIDTH; column += 1) {
      let [red, green, blue] = [0, 0, 0];
      for (let sample = 0; sample < 4; sample += 1) {
        const [u, v] = [column + 0.25 + 0.5 * (sample & 1), row + 0.25 + 0.5 * (sample >> 1)];
        const [r, g, b] = colourAt(u, v);
        [red, green, blue] = [red + r, green + g, blue + b];
      }
      const shade = 0.33 * (1 - 0.32 * Math.hypot(column / WIDTH - 0.45, row / HEIGHT - 0.4));
      pixels[3 * (row * WIDTH + column)] = Math.min(255, red * shade);
      pixels[3 * (row * WIDTH + column) + 1] = Math.min(255, green * shade);
      pixels[3 * (row * WIDTH + column) + 2] = Math.min(255, blue * shade);
    }
  }
  return pixels;

  function colourAt(u: number, v: number): Colour {
    for (const disc of discs) {
      const [x, y] = sight(u, v, disc.face);
      const far = Math.hypot(x - disc.at[0], y - disc.at[1]);
      if (far <= disc.r) return face(far / disc.r, Math.atan2(y - disc.at[1], x - disc.at[0]), disc);
    }
    for (const z of slices) {
      const [x, y] = sight(u, v, z);
      for (const disc of discs) {
        const far = Math.hypot(x - disc.at[0], y - disc.at[1]);
        const groove = !disc.smooth && Math.abs(z % 4) > 1 ? 3 : 0;
        if (far <= disc.r - groove)
          return times(groove > 0 ? STEEL : ALLOY, 0.42 + 0.2 * Math.max(0, (y - disc.at[1]) / disc.r));
      }
      if (z > -25 && belt(x, y)) return times(RUBBER, z > -4 ? 1.2 : 0.85);
    }
    const [x, y] = sight(u, v, WALL_Z);
    const shadow = Math.min(
      1,
      ...discs.map((disc) => 0.5 + Math.max(0, Math.hypot(x - disc.at[0] - 14, y - disc.at[1] + 18) - disc.r) / 50),
    );
    return times(CASTING, shadow * casting(x, y));
  }
}

/** The front of a pulley: bright rim, dished web with holes, hub and bolt. */
function face(share: number, turn: number, { holes, r }: { holes: number; r: number }): Colour {
  const lit = 0.88 + 0.16 * Math.sin(turn + 0.6);
  if (share > 0.93) return times(ALLOY, 1.12 * lit);
  if (share > 0.86) return times(ALLOY, 0.72 * lit);
  const bolt = 9 / r;
  if (share < bolt) return times(STEEL, 0.7 + 0.3 * Math.sin(3 * turn));
  if (share < 2.2 * bolt) return times(ALLOY, 0.95 * lit);
  if (holes > 0) {
    const step = (2 * Math.PI) / holes;
    const near = turn - step * Math.round(turn / step);
    if (Math.hypot(share * Math.cos(near) - 0.58, share * Math.sin(near)) < 0.13) return times(CASTING, 0.3);
  }
  return times(STEEL, (0.78 + 0.3 * share) * lit);
}

/** A cast wall with ribs and bosses, so that there is something to be looked past. */
function casting(x: number, y: number): number {
  const rib = Math.abs(((x + 400) % 130) - 65) < 5 || Math.abs(((y + 700) % 170) - 85) < 5 ? 1.15 : 0.95;
  const boss = Math.hypot(((x + 1000) % 130) - 65, ((y + 1200) % 170) - 85);
  const mottle = 0.05 * (Math.sin(x / 7.3 + 2 * Math.sin(y / 11)) + Math.sin(y / 5.1 + 2 * Math.sin(x / 9)));
  return (boss < 7 ? 0.7 : boss < 15 ? 1.22 : rib) + mottle;
}

/** Whether the belt lies on a point of the camera's frame: drawn once on a grid of half millimetres. */
function beltOn(seen: Drive): (x: number, y: number) => boolean {
  const size = 1600;
  const grid = new Uint8Array(size * size);
  for (const [ax, ay, bx, by] of beltLines(seen)) {
    const [left, right] = [Math.min(ax, bx) - 3, Math.max(ax, bx) + 3].map((x) => Math.round(2 * x + size / 2)) as [
      number,
      number,
    ];
    const [low, high] = [Math.min(ay, by) - 3, Math.max(ay, by) + 3].map((y) => Math.round(2 * y + size / 2)) as [
      number,
      number,
    ];
    for (let j = low; j <= high; j += 1) {
      for (let i = left; i <= right; i += 1)
        if (fromSegment((i - size / 2) / 2, (j - size / 2) / 2, ax, ay, bx, by) < 2.1) grid[j * size + i] = 1;
    }
  }
  return (x, y) =>
    Math.max(Math.abs(x), Math.abs(y)) < size / 4 - 1 &&
    grid[Math.round(2 * y + size / 2) * size + Math.round(2 * x + size / 2)] === 1;
}

/** The belt's cord in short straight pieces, in the camera's frame. */
function beltLines(seen: Drive): [number, number, number, number][] {
  return solveDrive(seen).belts.flatMap(({ contacts, spans }) => [
    ...spans.map(({ start, end }): [number, number, number, number] => [
      ...inFrame(start.x, start.y),
      ...inFrame(end.x, end.y),
    ]),
    ...contacts.flatMap(({ centre, cordRadius, arrive, wrapDeg, turn }) => {
      const from = Math.atan2(arrive!.y - centre.y, arrive!.x - centre.x);
      const at = (k: number) => {
        const angle = from + (turn * wrapDeg! * Math.PI * k) / (180 * 24);
        return inFrame(centre.x + cordRadius * Math.cos(angle), centre.y + cordRadius * Math.sin(angle));
      };
      return Array.from({ length: 24 }, (_, k): [number, number, number, number] => [...at(k), ...at(k + 1)]);
    }),
  ]);
}

function fromSegment(x: number, y: number, ax: number, ay: number, bx: number, by: number): number {
  const [dx, dy] = [bx - ax, by - ay];
  const along = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
  return Math.hypot(x - ax - along * dx, y - ay - along * dy);
}

function times([r, g, b]: Colour, by: number): Colour {
  return [r * by, g * by, b * by];
}

function round(value: number): number {
  return Math.round(value * 10) / 10;
}

function pointsOnOneLine(text: string): string {
  return text.replace(/\[\s+(-?[\d.]+),\s+(-?[\d.]+)\s+\]/g, '[$1, $2]');
}
