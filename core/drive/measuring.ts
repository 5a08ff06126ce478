/*
 * Apart from the schemas, so that a page that only asks which tool was used need not carry what reads files.
 */

/** What a length was measured with. */
export const TOOLS = ['string', 'rope', 'wire', 'strap', 'old-belt', 'gauge', 'marking'] as const;
export type Tool = (typeof TOOLS)[number];

/** Where a string, rope or wire lay on grooved pulleys: down in the grooves, or on top of the ribs or rims. */
export const LAYS = ['groove', 'rim'] as const;
export type Lay = (typeof LAYS)[number];

/** Where the adjuster stood. */
export const STATES = ['as-drawn', 'slack', 'short-mark', 'long-mark', 'tight'] as const;
export type AdjusterState = (typeof STATES)[number];
