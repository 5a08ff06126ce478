import type { Drive } from '@emery/core/drive';

/** A drive at the limits of everything: a second's work to check, as lawful as any. */
export function largest(): Drive {
  const stations = Array.from({ length: 64 }, (_, s) => ({
    id: `s${s}`,
    role: 'idler',
    x: 90 * (s % 8),
    y: 90 * Math.floor(s / 8),
    output: Array.from({ length: 60 }, (_point, k) => ({ rpm: k * 10, amps: k })),
    pulleys: Array.from({ length: 12 }, (_sheave, p) => ({
      id: `s${s}p${p}`,
      surface: 'ribbed',
      diameter: 60,
      grooves: 6,
      plane: p,
    })),
  }));
  return {
    format: 'emery-drive',
    version: 1,
    name: 'Largest',
    crankRotation: 'cw',
    stations,
    belts: Array.from({ length: 16 }, (_, b) => ({
      id: `b${b}`,
      section: 'PK',
      ribs: 6,
      route: Array.from({ length: 128 }, (_stop, k) => ({ pulley: `s${k % 64}p${Math.floor(k / 64)}`, side: 'drive' })),
    })),
  } as unknown as Drive;
}
