import { randomUUID } from 'node:crypto';
import { listening, type Listening } from '../server/test/listening';
import type { Drive } from '@emery/core/drive';
import type { Change, PatchAnswer, Version } from '@emery/core/together';

/* Fifty devices on twenty drives, two changes a second each, from the tap here to the message there. */

const DEVICES = 50;
const DRIVES = 20;
const EACH_MS = 500;
const LASTS_MS = 30_000;

interface Device extends Listening {
  drive: string;
  revision: number;
  load: string;
  amps: number;
}

/** Delays from a change to every other device at its drive, and bytes of what is sent and heard, of some seconds. */
export interface TogetherFigures {
  delays: number[];
  acknowledged: number[];
  changes: number;
  patchBytes: number;
  heardBytes: number;
  /** Of a device that shows no drive, a second. */
  idleBytes: number;
}

async function ask<T>(address: string, method: string, path: string, body: object): Promise<T> {
  const response = await fetch(`${address}/api${path}`, {
    method,
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (!response.ok) throw new Error(await response.text());
  return response.json() as Promise<T>;
}

export async function loadTogether(address: string, document: Drive): Promise<TogetherFigures> {
  // One for each device at a drive.
  const loads = Array.from({ length: Math.ceil(DEVICES / DRIVES) }, (_, k) => ({
    ...{ id: `l-${k}`, name: `Lamp ${k}`, amps: 1 },
  }));
  const drives: string[] = [];
  for (let k = 0; k < DRIVES; k += 1) {
    const { id: vehicleId } = await ask<{ id: string }>(address, 'POST', '/vehicles', { name: `Bench truck ${k}` });
    drives.push(
      (await ask<{ id: string }>(address, 'POST', '/drives', { vehicleId, document: { ...document, loads } })).id,
    );
  }
  const devices: Device[] = [];
  for (let k = 0; k < DEVICES; k += 1) {
    const drive = drives[k % DRIVES]!;
    const listener = await listening(`${address}/api`);
    const tabs = [{ tab: 't', drive, stage: 'size', part: '' }];
    await ask(address, 'PUT', `/live/here/${listener.device}`, { name: '', kind: 'phone', follows: null, tabs });
    devices.push(Object.assign(listener, { drive, revision: 1, load: `l-${Math.floor(k / DRIVES)}`, amps: 1 }));
  }
  const idle = await listening(`${address}/api`);
  await new Promise((resolve) => setTimeout(resolve, 1500));
  const began = new Map<string, number>();
  const heard: { saveId: string; device: Device; at: number }[] = [];
  for (const device of devices) {
    // As messages come, not when somebody looks.
    const push = device.heard.push.bind(device.heard);
    device.heard.push = (...messages) => {
      const at = performance.now();
      for (const message of messages)
        if (message.kind === 'drive') heard.push({ saveId: (message.version as Version).saveId, device, at });
      return push(...messages);
    };
  }
  const figures = { acknowledged: [] as number[], patchBytes: 0 };
  const change = async (device: Device): Promise<void> => {
    const amps = device.amps + 1;
    const changes: Change[] = [{ at: ['loads', device.load, 'amps'], was: device.amps, now: amps }];
    const patch = { revision: device.revision, saveId: randomUUID(), changes };
    figures.patchBytes = Math.max(figures.patchBytes, JSON.stringify(patch).length);
    const start = performance.now();
    began.set(patch.saveId, start);
    const answer = await ask<PatchAnswer>(address, 'PATCH', `/drives/${device.drive}`, patch);
    figures.acknowledged.push(performance.now() - start);
    Object.assign(device, { amps, revision: answer.revision });
  };
  const bytesBefore = [devices.reduce((sum, device) => sum + device.bytes(), 0), idle.bytes()] as const;
  const end = performance.now() + LASTS_MS;
  await Promise.all(
    devices.map(async (device, k) => {
      await new Promise((resolve) => setTimeout(resolve, (EACH_MS * k) / DEVICES));
      while (performance.now() < end) {
        const next = performance.now() + EACH_MS;
        await change(device);
        await new Promise((resolve) => setTimeout(resolve, Math.max(0, next - performance.now())));
      }
    }),
  );
  await new Promise((resolve) => setTimeout(resolve, 1500));
  for (const { stop } of [...devices, idle]) stop();
  const whose = new Map(devices.map((device) => [device.device, device]));
  const delays = heard.flatMap(({ saveId, device, at }) => {
    const start = began.get(saveId);
    return start === undefined || !whose.has(device.device) ? [] : [at - start];
  });
  const heardBytes =
    (devices.reduce((sum, device) => sum + device.bytes(), 0) - bytesBefore[0]) / Math.max(1, heard.length);
  return {
    ...figures,
    delays,
    heardBytes,
    changes: began.size,
    idleBytes: (idle.bytes() - bytesBefore[1]) / (LASTS_MS / 1000),
  };
}
