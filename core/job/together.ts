import { changeBelt, type Drive } from '../drive';
import { hotRise, newBeltFigures, type NewBeltFigures, tensionOf, type TensionWindow, usualWindow } from '../loads';
import { settingFor, sharedSettings } from '../tension';
import type { HeldBelt } from './held';

/** What a belt of a job is set to, N; null where no figure can be worked out. */
export interface BeltFigure {
  belt: string;
  setN: number | null;
  /** Once it has run in. */
  runInN: number | null;
  /** Between which it is right; null without a limit. */
  leastN: number | null;
  mostN: number | null;
}

/** The belts that one adjuster sets: their figures, by which one it goes, and whether both can be had. */
export interface SetTogether {
  /** The belt that needs the adjuster furthest; the only one where it holds no other. */
  lead: string;
  figures: readonly BeltFigure[];
  /** Belts that are too slack or too tight for their window once the first is right. */
  apart: readonly string[];
}

interface Wanted {
  held: HeldBelt;
  window: TensionWindow | null;
  figures: NewBeltFigures | null;
}

/** So often each belt's window is worked out anew with the others set; it settles by then. */
const ROUNDS = 3;

/**
 * How belts on one adjuster are set: by the belt that needs it furthest out, the others at what they then have, each by
 * its own length. So the figures are one for each belt, and can be had at once. `fresh` are the belts that go on new:
 * what the old ones stood at is not theirs.
 */
export function setTogether(drive: Drive, belts: readonly HeldBelt[], fresh: ReadonlySet<string>): SetTogether {
  if (belts.length === 1) {
    const window = usualWindow(drive, belts[0]!.belt.id);
    const wanted = { held: belts[0]!, window, figures: window && newBeltFigures(window) };
    return { lead: wanted.held.belt.id, figures: [figureOf(wanted)], apart: [] };
  }
  const renewed = [...fresh].reduce((now, id) => changeBelt(now, id, { staticTension: undefined }), drive);
  const wanted = wantedTogether(renewed, belts);
  const tension = tensionOf(renewed);
  const leads = wanted.flatMap((want) => {
    const standing = tension.staticBelts[renewed.belts.findIndex(({ id }) => id === want.held.belt.id)];
    if (!want.figures || !standing) return [];
    return [{ want, at: (newtons: number) => settingFor(renewed, standing, newtons) }];
  });
  if (leads.length === 0) return { lead: belts[0]!.belt.id, figures: wanted.map(figureOf), apart: [] };
  const needs = ({ want, at }: (typeof leads)[number]) => at(want.figures!.setN)?.mm ?? -Infinity;
  const lead = leads.reduce((found, next) => (needs(next) > needs(found) ? next : found));
  const { belt: leading } = lead.want.held;
  const othersAt = (newtons: number): ReadonlyMap<string, number | null> => {
    const setting = lead.at(newtons);
    const others = setting ? sharedSettings(renewed, tension.staticBelts, leading.id, setting) : [];
    return new Map(others.map(({ belt, thenN }) => [belt, thenN]));
  };
  const [onSet, onRunIn] = [othersAt(lead.want.figures!.setN), othersAt(lead.want.figures!.runInN)];
  const figures = wanted.map((want): BeltFigure => {
    const own = figureOf(want);
    if (want === lead.want) return own;
    return { ...own, setN: onSet.get(own.belt) ?? own.setN, runInN: onRunIn.get(own.belt) ?? own.runInN };
  });
  const apart = figures.filter(({ setN, runInN, leastN, mostN }) => {
    if (setN === null || runInN === null) return false;
    return runInN < (leastN ?? 0) - 0.5 || setN > (mostN ?? Infinity) + 0.5;
  });
  return { lead: leading.id, figures, apart: apart.map(({ belt }) => belt) };
}

const figureOf = ({ held, window, figures }: Wanted): BeltFigure => ({
  belt: held.belt.id,
  setN: figures?.setN ?? null,
  runInN: figures?.runInN ?? null,
  leastN: window?.leastN ?? null,
  mostN: window?.mostN ?? null,
});

/** What each belt asks for while the others pull at the shafts they share as they will once they have run in. */
function wantedTogether(drive: Drive, belts: readonly HeldBelt[]): Wanted[] {
  const runIn = new Map<string, number | undefined>();
  const round = () =>
    belts.map((held): Wanted => {
      const others = belts.filter((other) => other !== held && runIn.get(other.belt.id) !== undefined);
      const pulled = others.reduce(
        (now, { belt: { id } }) => changeBelt(now, id, { staticTension: runIn.get(id)! }),
        drive,
      );
      const window = usualWindow(pulled, held.belt.id);
      const figures = window && newBeltFigures(window);
      return { held, window, figures };
    });
  let wanted = round();
  for (let k = 1; k < ROUNDS; k += 1) {
    for (const { held, figures } of wanted) runIn.set(held.belt.id, figures?.runInN);
    wanted = round();
  }
  return wanted;
}

/** What a hot engine adds to these belts, N: the most of them; 0 where none has a path. */
export function mostHotRise(drive: Drive, belts: readonly HeldBelt[]): number {
  const { staticBelts } = tensionOf(drive);
  const rises = belts.map(({ belt }) => {
    const standing = staticBelts[drive.belts.indexOf(belt)];
    return standing ? hotRise(drive, standing) : 0;
  });
  return Math.max(0, ...rises);
}
