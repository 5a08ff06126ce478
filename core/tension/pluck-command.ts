import { type Command, UsageProblem } from '../command';
import { readWav } from '../sound';
import { hearPluck } from './pluck';
import { NO_PLUCK_WORDS } from './words';

/** `pluck FILE.wav --length-mm L --mass KGPERM [--expect N]`: the note of a plucked span, and its tension. */
export const pluckCommand: Command<Uint8Array> = {
  name: 'pluck',
  usage: 'emery pluck FILE.wav --length-mm L --mass KGPERM [--expect N]',
  options: ['length-mm', 'mass', 'expect'],
  prepare: ({ 'length-mm': length, mass, expect }, usage) => {
    if (length === undefined || mass === undefined) throw usage;
    const lengthMm = figure('--length-mm', length, 5, 5000, 'a length of the span in mm');
    const kgPerMetre = figure('--mass', mass, 1e-4, 10, 'a mass in kg per metre');
    const expectN = expect === undefined ? undefined : figure('--expect', expect, 1, 100_000, 'a tension in N');
    return (bytes) => {
      const reading = readWav(bytes);
      if (!reading.ok) throw new UsageProblem(`FILE ${reading.message}`);
      const heard = hearPluck(reading.sound, { lengthMm, kgPerMetre, ...(expectN !== undefined && { expectN }) });
      const { frequencyHz, tensionN, plusMinusN, confidence, plucks, others, why } = heard;
      const findings = why === null ? [] : [{ code: why, severity: 'watch', message: NO_PLUCK_WORDS[why] }];
      return { frequencyHz, tensionN, plusMinusN, confidence, plucks: plucks.length, others, findings };
    };
  },
};

function figure(name: string, text: string, min: number, max: number, what: string): number {
  const value = Number(text);
  if (text.trim() === '' || !(value >= min && value <= max))
    throw new UsageProblem(`${name}: "${text}" is not ${what}, from ${min} to ${max}`);
  return value;
}
