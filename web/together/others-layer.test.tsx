/** @jest-environment jsdom */
import { act } from 'react';
import { createRoot, type Root } from 'react-dom/client';
import { followed, moveTo, others } from '../live/here';
import { OthersLayer } from '../views/front/OthersLayer';
import { justChanged } from './changed';
import type { HereDevice } from '@emery/core/api';
import { DEMO } from '../../core/test/demo';

/* Ids of pulleys are alike on many drives: what others do is marked on the drive that they do it to, and no other. */

Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true });

const DRIVE = DEMO.rescue;
const [crank, other] = DRIVE.stations;
const HERE = 'the drive that is shown';
const pulleys = DRIVE.stations.map((station, k) => ({
  ...{ station, name: station.id, radius: 40, fault: undefined, x: 100 * k, y: 0, r: 40 },
}));
const idAt = (k: number) => DRIVE.stations[k]!.pulleys[0]!.id;
const somebody = (drive: string, part: string): HereDevice => ({
  ...{ device: 'theirs', name: 'Bob', kind: 'phone', follows: null },
  tabs: [{ tab: 't', drive, stage: 'size', part }],
});

let root: Root;
let svg: SVGSVGElement;
beforeEach(() => {
  svg = document.body.appendChild(document.createElementNS('http://www.w3.org/2000/svg', 'svg'));
  root = createRoot(svg as unknown as HTMLElement);
  moveTo({ drive: HERE, stage: 'size', part: '' });
  act(() => root.render(<OthersLayer pulleys={pulleys as never} k={2} tx={10} ty={20} />));
});
afterEach(() => {
  act(() => {
    root.unmount();
    others.set([]);
    justChanged.set(null);
    followed.set(null);
  });
  svg.remove();
});
const rings = () => [...svg.querySelectorAll('circle[class]')].map((ring) => ring.getAttribute('class'));

test.each([HERE, 'another drive'])('a pulley in hand is ringed where it is the drive shown: %s', (drive) => {
  act(() => others.set([somebody(drive, idAt(1))]));
  expect(rings()).toEqual(drive === HERE ? ['others-held'] : []);
});

test.each([HERE, 'another drive'])('what was changed is ringed where it is the drive shown: %s', (drive) => {
  act(() => justChanged.set({ drive, text: 'x', stations: new Set([crank!.id, other!.id]) }));
  expect(rings()).toEqual(drive === HERE ? ['others-changed', 'others-changed'] : []);
});

test.each([HERE, 'another drive'])('who is followed points with a name, on the drive shown: %s', (drive) => {
  act(() => {
    others.set([somebody(drive, '')]);
    followed.set({ device: 'theirs', pointing: { drive, at: { x: 30, y: 5 }, part: '' } });
  });
  const point = svg.querySelector('.others-point');
  expect(point?.getAttribute('transform') ?? null).toBe(drive === HERE ? 'translate(70 10)' : null);
  expect(point?.textContent ?? '').toBe(drive === HERE ? 'Bob' : '');
});
