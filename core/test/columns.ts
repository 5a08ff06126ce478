import type { BeltRunning } from '../loads';

/** A belt that runs, by column: what tests compare whole. */
export const columnsOf = ({ pulleys, ...belt }: BeltRunning) => ({
  ...belt,
  tensionN: pulleys.map(({ leavesN }) => leavesN),
  torqueNm: pulleys.map(({ torqueNm }) => torqueNm),
  margin: pulleys.map(({ margin }) => margin),
  hub: pulleys.map(({ hubLoad }) => hubLoad),
});
