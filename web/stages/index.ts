import { align } from './align/stage';
import { inspect } from './inspect/stage';
import { job } from './job/stage';
import { noise } from './noise/stage';
import { route } from './route/stage';
import { size } from './size/stage';
import { speeds } from './speeds/stage';
import type { Stage } from './stage';
import { survey } from './survey/stage';
import { tension } from './tension/stage';

/** The stages in the order of the work. Bench, views, keys, help and rail read this list. */
export const STAGES: readonly Stage[] = [survey, route, size, speeds, tension, align, noise, inspect, job];

/** The stage of that name; where there is none, Route for a drive with a route and the first for a new one. */
export function stageOf(id: string | undefined, routed: boolean): Stage {
  return STAGES.find((stage) => stage.id === id) ?? (routed ? route : STAGES[0]!);
}
