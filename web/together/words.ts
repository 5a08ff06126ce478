import { plural } from '@emery/core/quantity';
import type { DeviceKind, TakeKind, TakeState } from '@emery/core/api';
import type { Question } from '@emery/core/together';

const DEVICE: Record<DeviceKind, string> = { phone: 'phone', tablet: 'tablet', computer: 'computer' };

/** Parts of the page that are fetched when they are first shown. */
export const PARTS = {
  question: 'The question',
  phone: 'The request to a phone',
  asked: 'What the bench asks for',
} as const;

/** What is said of two people, or two devices, at one drive. */
export const TOGETHER = {
  device: (kind: DeviceKind) => DEVICE[kind],
  someone: (name: string, kind: DeviceKind) => (name === '' ? `Another ${DEVICE[kind]}` : name),
  where: (stage: string, part: string) => [stage, part].filter(Boolean).join(', '),
  follow: 'Follow',
  stop: 'Stop following',
  here: (count: number) => (count === 1 ? '1 other here' : `${count} others here`),
  changed: (by: string, what: string) => `${by || 'Another device'} changed: ${what}`,
  more: (count: number) => ` and ${plural(count, 'more thing', 'more things')}`,
} as const;

const whoWords = (by: string) => by || 'another device';

/** What a question asks, by why there is one. */
export function questionTitle({ why, changes, by }: Question): string {
  const who = whoWords(by);
  const deletes = changes.some((change) => 'drop' in change);
  if (why === 'gone') return `You changed what ${who} deleted`;
  if (why === 'there') return `Added by you and by ${who}`;
  if (why === 'unfit') return `Your change does not fit with what ${who} changed`;
  if (why === 'full') return 'No room for what you added';
  return deletes ? `You deleted what ${who} changed` : `Changed by you and by ${who}`;
}

export const QUESTION = {
  label: 'Changed on two devices',
  lead: 'Nothing is lost. Choose one.',
  mine: 'Use mine',
  theirs: 'Keep theirs',
  mineIs: (value: string) => `Use mine: ${value}`,
  theirsIs: (value: string, by: string) => `Keep ${by ? `${by}’s` : 'theirs'}: ${value}`,
  at: (time: string) => `at ${time}`,
  left: (count: number) => `${plural(count, 'more question')} after this one`,
  more: (count: number) => `and ${plural(count, 'more difference')}`,
} as const;

const TAKE_VERB: Record<TakeKind, string> = { picture: 'Take it', sound: 'Record it', reading: 'Write it' };

/** What is said of a phone that takes something for the bench. */
export const TAKE = {
  button: (kind: TakeKind) => `${TAKE_VERB[kind]} with the phone`,
  title: (kind: TakeKind, label: string) => `${TAKE_VERB[kind]} with the phone: ${label}`,
  which: 'Which phone?',
  none: 'No phone has Emery open. Open this on one:',
  other: 'Another phone',
  cancel: 'Cancel',
  state: (state: TakeState, part: number): string =>
    ({
      asked: 'Waiting for the phone …',
      seen: 'The phone shows the request',
      ready: 'The phone is ready',
      sending: `Sending, ${part} %`,
      done: '✓ Received',
      none: '▲ The phone could not take it',
    })[state],
  asks: (by: string) => `${by || 'The bench'} asks for`,
  kind: { picture: 'a picture', sound: 'a recording', reading: 'a reading' } satisfies Record<TakeKind, string>,
  shutter: 'Take the picture',
  choose: 'Use the camera app or a file',
  record: 'Record',
  stopAndSend: 'Stop and send',
  recording: (seconds: number) => `Recording, ${seconds} s`,
  quiet: 'No microphone here. Allow it in the browser, then record.',
  noCamera: 'The camera does not open here. Use the camera app or a file.',
  caution:
    'Pluck with the engine off. With the engine running, keep hands, cables and clothing clear of belts and fan.',
  reading: (unit: string) => (unit === '' ? 'Reading' : `Reading, ${unit}`),
  sendReading: 'Send to the bench',
  sent: '✓ On the bench. You can put the phone away.',
  sendAgain: 'Send again',
  cancelled: 'Cancelled. Nothing was sent.',
  back: 'Back to the shop',
  wrong: 'Not sent.',
  over: 'This request is over. Ask again from the bench.',
} as const;

/** What a phone is asked to record, in the bench's words. */
export const TAKEN = {
  noise: 'Noise of the running drive',
  pluck: 'Belt plucked at mid-span, three times',
} as const;
