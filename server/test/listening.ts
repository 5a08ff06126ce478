import { randomUUID } from 'node:crypto';
import type { LiveMessage } from '@emery/core/api';

/** A device that listens to a server, as a page does. */
export interface Listening {
  device: string;
  heard: LiveMessage[];
  /** Bytes that came, all in all. */
  bytes: () => number;
  /** Waits for a message; fails where none comes within some seconds. */
  until: <K extends LiveMessage['kind']>(
    kind: K,
    is?: (message: Extract<LiveMessage, { kind: K }>) => boolean,
  ) => Promise<Extract<LiveMessage, { kind: K }>>;
  stop: () => void;
}

const LONGEST_MS = 8000;

export async function listening(
  base: string,
  { device = randomUUID(), after }: { device?: string; after?: number } = {},
): Promise<Listening> {
  const over = new AbortController();
  const response = await fetch(`${base}/live?device=${device}${after === undefined ? '' : `&after=${after}`}`, {
    signal: over.signal,
  });
  if (response.status !== 200) throw new Error(`${response.status} ${await response.text()}`);
  const heard: LiveMessage[] = [];
  const waiting = new Set<() => void>();
  let bytes = 0;
  void (async () => {
    let text = '';
    const decoder = new TextDecoder();
    for await (const piece of response.body as unknown as AsyncIterable<Uint8Array>) {
      bytes += piece.length;
      text += decoder.decode(piece, { stream: true });
      const blocks = text.split('\n\n');
      text = blocks.pop() ?? '';
      for (const block of blocks) {
        const data = block.split('\n').find((line) => line.startsWith('data: '));
        if (data) heard.push(JSON.parse(data.slice(6)) as LiveMessage);
      }
      for (const look of waiting) look();
    }
  })().catch(() => undefined);
  const until: Listening['until'] = (kind, is = () => true) =>
    new Promise((resolve, reject) => {
      const done = () => {
        waiting.delete(look);
        clearTimeout(late);
      };
      const late = setTimeout(() => {
        done();
        reject(new Error(`no ${kind} among ${JSON.stringify(heard).slice(0, 2000)}`));
      }, LONGEST_MS);
      const look = () => {
        const found = heard.find((message) => message.kind === kind && is(message as never));
        if (!found) return;
        done();
        resolve(found as never);
      };
      waiting.add(look);
      look();
    });
  const listener: Listening = { device, heard, bytes: () => bytes, until, stop: () => over.abort() };
  await until('hello');
  return listener;
}
