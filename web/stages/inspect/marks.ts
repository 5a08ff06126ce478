import type { Verdict } from '@emery/core/inspect';

/** A verdict as a sign, so that meaning never rests on colour alone. */
export const VERDICT_MARKS: Record<Verdict, string> = { keep: '●', watch: '▲', replace: '■', 'not looked at': '○' };
