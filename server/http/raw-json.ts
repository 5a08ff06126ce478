import { randomUUID } from 'node:crypto';
import type { Response } from 'express';

/** JSON that is stored as text, and is sent as it is: read and written again it would take longer than the rest. */
export class RawJson {
  constructor(readonly text: string) {}
}

/** Stands in the place of such a text until the rest is written; no text of anybody's holds it. */
const MARK = `raw ${randomUUID()} `;
const MARKS = new RegExp(`"${MARK}(\\d+)"`, 'g');

/** A value as JSON, with what is stored as such put in as it is. */
export function jsonText(value: object): string {
  const raw: string[] = [];
  const text = JSON.stringify(value, (_key, part: unknown) =>
    part instanceof RawJson ? `${MARK}${raw.push(part.text) - 1}` : part,
  );
  return raw.length === 0 ? text : text.replace(MARKS, (_mark, k: string) => raw[Number(k)]!);
}

export const sendJson = (response: Response, value: object): Response => response.type('json').send(jsonText(value));
