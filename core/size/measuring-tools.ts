/** What a length was measured with. */
export const TOOLS = ['string', 'rope', 'wire', 'strap', 'old-belt', 'gauge', 'marking'] as const;
export type Tool = (typeof TOOLS)[number];

/** Where the adjuster stood. */
export const STATES = ['as-drawn', 'slack', 'short-mark', 'long-mark', 'tight'] as const;
export type AdjusterState = (typeof STATES)[number];

