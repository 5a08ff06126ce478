/** What is said of the stream of what happens, and of what one device asks of another. */
export const LIVE = {
  device: 'must be the name of a device, 8 to 36 letters and digits',
  after: 'must be the number of a message, 0 or more',
  notASound: 'Not a sound',
  sound: 'Sound: a WAV file of 4 MB at most is accepted.',
  over: 'Over',
  wasCancelled: 'This request was cancelled at the bench. Nothing was taken in.',
  notOpen: 'this shop is not open',
} as const;
