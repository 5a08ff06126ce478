import fc from 'fast-check';
import { DEMO } from '../test/demo';
import { draws } from '../test/draws';
import { type Drawn, drawnEdit, editedBy } from '../test/edits';
import { type Drive, readDrive, same } from '../drive';
import {
  answered,
  caughtUp,
  changesBetween,
  type Device,
  forced,
  hears,
  isUnsent,
  keptOf,
  merged,
  type Patch,
  type PatchAnswer,
  resumed,
  sending,
  startDevice,
  type Version,
  withMine,
} from './index';

/*
 * Two or three people at one drive over a network that loses, repeats and turns round whatever goes over it, with
 * devices that are shut and opened in between. The server here is the least one: a drive, its versions, the names of
 * the saves that it took.
 */

type Step =
  | { do: 'edit'; who: number; drawn: Drawn }
  | { do: 'send' | 'restart' | 'answer'; who: number }
  | { do: 'deliver' | 'repeat' | 'lose'; which: number };

const who = fc.nat(2);
const step: fc.Arbitrary<Step> = fc.oneof(
  { weight: 5, arbitrary: fc.record({ do: fc.constant('edit' as const), who, drawn: drawnEdit }) },
  { weight: 4, arbitrary: fc.record({ do: fc.constantFrom('send' as const), who }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constantFrom('restart' as const, 'answer' as const), who }) },
  { weight: 6, arbitrary: fc.record({ do: fc.constant('deliver' as const), which: fc.nat(20) }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constantFrom('repeat' as const, 'lose' as const), which: fc.nat(20) }) },
);

type Message =
  | { to: 'server'; from: number; patch: Patch }
  | { to: 'device'; who: number; saveId: string; answer: PatchAnswer }
  | { to: 'device'; who: number; version: Version };

class World {
  drive: Drive;
  revision = 1;
  readonly versions: Version[] = [];
  readonly taken = new Map<string, PatchAnswer['clashes']>();
  devices: Device[];
  readonly network: Message[] = [];
  names = 0;
  /** So often somebody was asked, also about what was settled before the end. */
  asked = 0;

  constructor(start: Drive, people: number) {
    this.drive = start;
    this.devices = Array.from({ length: people }, () => startDevice(1, start));
  }

  at(k: number): Device {
    return this.devices[k % this.devices.length]!;
  }

  put(k: number, device: Device): void {
    // Whatever a device shows is a drive that could be saved.
    expect(readDrive(device.present)).toMatchObject({ ok: true });
    this.asked += Math.max(0, device.questions.length - this.at(k).questions.length);
    this.devices[k % this.devices.length] = device;
  }

  take(step: Step): void {
    if ('which' in step) return this.move(step);
    const k = step.who % this.devices.length;
    const device = this.at(k);
    switch (step.do) {
      case 'edit':
        return this.put(k, { ...device, present: editedBy(device.present, step.drawn, `-${k}`) });
      case 'send':
        return this.send(k);
      case 'restart': {
        const kept = JSON.parse(JSON.stringify(keptOf(device))) as ReturnType<typeof keptOf>;
        return this.put(k, resumed(this.revision, this.drive, kept));
      }
      case 'answer': {
        const [question, ...rest] = device.questions;
        if (!question) return;
        return this.put(k, { ...device, questions: rest, present: withMine(device.present, question.changes) });
      }
    }
  }

  send(k: number): void {
    const device = sending(this.at(k), () => `save-${(this.names += 1)}`);
    if (!device) return;
    this.put(k, device);
    const { revision, saveId, changes } = device.sent!;
    this.network.push(
      JSON.parse(JSON.stringify({ to: 'server', from: k, patch: { revision, saveId, changes } })) as Message,
    );
  }

  move({ do: what, which }: Extract<Step, { which: number }>): void {
    if (this.network.length === 0) return;
    const at = which % this.network.length;
    const message = this.network[at]!;
    if (what !== 'repeat') this.network.splice(at, 1);
    if (what !== 'lose') this.deliver(message);
  }

  deliver(message: Message): void {
    if (message.to === 'server') return this.serve(message.from, message.patch);
    const { who: k } = message;
    const device = this.at(k);
    if ('version' in message) return this.put(k, hears(device, message.version) ?? this.read(device));
    if (device.sent?.saveId !== message.saveId) return;
    this.put(k, answered(device, message.answer) ?? this.read({ ...device, sent: null }));
  }

  /** Versions are missing: the drive is read anew. */
  read(device: Device): Device {
    return caughtUp(device, this.revision, this.drive);
  }

  serve(from: number, patch: Patch): void {
    const before = this.drive;
    if (!this.taken.has(patch.saveId)) {
      const { drive, clashes } = merged(before, patch.changes);
      expectOnlyThat(
        before,
        drive,
        patch,
        clashes.flatMap(({ changes }) => changes),
      );
      this.taken.set(patch.saveId, clashes);
      const changes = changesBetween(before, drive);
      if (changes.length > 0) {
        this.drive = drive;
        this.revision += 1;
        const version = { revision: this.revision, changes, by: `p${from}`, at: '', saveId: patch.saveId };
        this.versions.push(version);
        for (const k of this.devices.keys())
          this.network.push({ to: 'device', who: k, version: JSON.parse(JSON.stringify(version)) as Version });
      }
    }
    const answer: PatchAnswer = {
      revision: this.revision,
      updatedAt: '',
      // Some are forgotten, as after an hour: the drive then goes as a whole.
      ...(patch.revision % 5 === 0
        ? { since: null, document: this.drive }
        : { since: this.versions.filter(({ revision }) => revision > patch.revision) }),
      clashes: this.taken.get(patch.saveId)!,
    };
    this.network.push({
      to: 'device',
      who: from,
      saveId: patch.saveId,
      answer: JSON.parse(JSON.stringify(answer)) as PatchAnswer,
    });
  }

  /** All goes through at last, what was lost again. */
  settle(): void {
    for (let round = 0; round < 20; round += 1) {
      for (const k of this.devices.keys()) this.send(k);
      while (this.network.length > 0) this.deliver(this.network.shift()!);
      for (const k of this.devices.keys()) if (!this.at(k).sent) this.put(k, this.read(this.at(k)));
      if (this.devices.every((device) => !isUnsent(device))) return;
    }
  }
}

/** A version holds what was sent and not asked about, all of it, and nothing else of it is another than before. */
function expectOnlyThat(before: Drive, after: Drive, { changes }: Patch, asked: Patch['changes']): void {
  const isAsked = new Set(asked.map((change) => JSON.stringify(change)));
  const accepted = changes.filter((change) => !isAsked.has(JSON.stringify(change)));
  const holders = accepted.map(({ at }) => at[0]);
  for (const field of new Set([...Object.keys(before), ...Object.keys(after)]) as Set<keyof Drive>)
    if (!same(before[field], after[field])) expect(holders).toContain(field);
  // Once more it changes nothing: it is all there.
  expect(same(merged(after, accepted).drive, after)).toBe(true);
  expect(merged(after, accepted).clashes).toEqual([]);
}

test.each([2, 3])('%d people end with the same drive everywhere, whatever the network does', (people) => {
  const figures = { steps: 0, versions: 0, questions: 0 };
  fc.assert(
    fc.property(
      fc.constantFrom('pickup', 'climb', 'rescue'),
      fc.array(step, { maxLength: 60, size: 'max' }),
      (name, steps) => {
        const world = new World(DEMO[name as keyof typeof DEMO], people);
        for (const next of steps) world.take(next);
        world.settle();
        for (const device of world.devices) {
          expect(isUnsent(device)).toBe(false);
          expect(same(device.present, world.drive)).toBe(true);
          expect(same(device.base, world.drive)).toBe(true);
        }
        expect(readDrive(world.drive)).toMatchObject({ ok: true });
        // All versions one after the other from the start give the drive: nothing came in by another way.
        const again = world.versions.reduce(
          (drive, { changes }) => forced(drive, changes),
          DEMO[name as keyof typeof DEMO],
        );
        expect(same(again, world.drive)).toBe(true);
        figures.steps += steps.length;
        figures.versions += world.versions.length;
        figures.questions += world.asked;
      },
    ),
    { numRuns: draws(400) },
  );
  // The draws are such that people do meet.
  expect(figures.versions).toBeGreaterThan(figures.steps / 40);
  expect(figures.questions).toBeGreaterThan(0);
});

test('a question holds both: mine is one tap away, and theirs stands until then', () => {
  const start = DEMO.rescue;
  const belt = start.belts[0]!;
  const withLength = (length: number) => ({ ...start, belts: [{ ...belt, length }, ...start.belts.slice(1)] });
  const version: Version = {
    ...{ revision: 2, saveId: 'theirs', by: 'Anna', at: '2026-11-02T10:00:00Z' },
    changes: changesBetween(start, withLength(1740)),
  };
  const mine = { ...startDevice(1, start), present: withLength(1735) };
  const asked = hears(mine, version)!;
  expect(asked.present.belts[0]!.length).toBe(1740);
  expect(asked.questions).toMatchObject([{ by: 'Anna', at: '2026-11-02T10:00:00Z', why: 'changed' }]);
  expect(withMine(asked.present, asked.questions[0]!.changes).belts[0]!.length).toBe(1735);
});
