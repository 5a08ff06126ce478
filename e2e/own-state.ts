import { mkdirSync, mkdtempSync, symlinkSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { STATE } from '../scripts/lib/paths.mjs';

/** A state folder of its own for a test of the commands; what is built from this source is the same for all. */
export function ownState(): string {
  const state = mkdtempSync(path.join(tmpdir(), 'emery-own-'));
  mkdirSync(path.join(STATE, 'builds'), { recursive: true });
  symlinkSync(path.join(STATE, 'builds'), path.join(state, 'builds'));
  return state;
}
