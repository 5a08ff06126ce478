/** Radians in a degree. */
export const RADIANS = Math.PI / 180;
/** Degrees in a radian. */
export const DEGREES = 180 / Math.PI;
/** Radians as degrees. */
export const toDegrees = (radians: number): number => (radians * 180) / Math.PI;
/** Degrees as radians. */
export const toRadians = (degrees: number): number => degrees * RADIANS;
/** Which way a step goes, degrees counter-clockwise from the right. */
export const headingDeg = (dx: number, dy: number): number => toDegrees(Math.atan2(dy, dx));

/** An angle as many turns on as brings it nearest to another, degrees: 350 beside -12 is -10. */
export const besideAngle = (angle: number, beside: number): number => angle - 360 * Math.round((angle - beside) / 360);
