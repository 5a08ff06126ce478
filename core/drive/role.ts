/** What a shaft is for. Apart from the schemas, as what a length is measured with is. */
export const ROLES = [
  'crankshaft',
  'alternator',
  'water-pump',
  'power-steering',
  'ac-compressor',
  'fan',
  'air-pump',
  'supercharger',
  'vacuum-pump',
  'generator',
  'idler',
  'tensioner',
  'jackshaft',
  'other',
] as const;
export type Role = (typeof ROLES)[number];
