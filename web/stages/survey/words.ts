/** What is said of the tapes of a survey, by their place in the list. */
export const removeTape = (nth: number): string => `Remove tape ${nth}`;

/** What a phone is asked for at the picture. */
export const PICTURE_ASKED = 'The drive from the front, every rim in the picture';
