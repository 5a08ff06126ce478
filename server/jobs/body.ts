import { boolean, lazy, list, mixed, number, object, optionalList, type Schema, string } from '../http/fields';
import { CHANGED_WHY, PHASES } from '@emery/core/drive';
import { moment } from '../http/moment';
import { type JobEvent, STEP_CODES } from '@emery/core/job';

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;
export const uuid = () => string().matches(UUID, 'must be a UUID in small letters').required('is missing');
const text = (max: number) => string().max(max, `must be ${max} characters at most`);
const needed = (max: number) => text(max).required('is missing');
const id = () => needed(200);

const common = { id: uuid(), at: moment().required('is missing'), by: text(80).defined('is missing') };
export const keptPicture = object({
  hash: string()
    .matches(/^[0-9a-f]{64}$/, 'must be the SHA-256 of the picture')
    .required('is missing'),
  width: number().integer().min(1).max(100_000).required('is missing'),
  height: number().integer().min(1).max(100_000).required('is missing'),
}).required('is missing');

const cardStep = object({
  id: id(),
  phase: string().oneOf(PHASES).required('is missing'),
  code: string().oneOf(STEP_CODES).required('is missing'),
  text: needed(20_000),
  caution: text(400).nullable().defined('is missing'),
  belt: text(80),
  belts: optionalList(id(), 16),
  station: text(80),
  pulley: text(80),
  part: object({ on: needed(20), target: needed(80) }).default(undefined),
  minutes: number().min(0).max(600),
  reworded: boolean(),
})
  .noUnknown()
  .required();

/** What each kind of event says besides. */
const EVENTS: { readonly [K in JobEvent['kind']]: Record<string, Schema> } = {
  tick: { step: id(), done: boolean().required('is missing') },
  note: { text: needed(2000), step: text(200) },
  odometer: { odometer: number().min(0, 'must be 0 or more').max(1e7, 'is too large').nullable().defined() },
  belt: {
    belt: id(),
    fitted: string().oneOf(['new', 'same'], 'must be new or same'),
    why: string().oneOf(CHANGED_WHY, `must be one of ${CHANGED_WHY.join(', ')}`),
    number: text(60),
    marking: text(60),
  },
  part: {
    name: needed(200),
    count: number()
      .integer('must be a whole number')
      .min(-1000, 'must be −1000 or more')
      .max(1000, 'must be 1000 at most')
      .required('is missing'),
    stock: number().integer().min(1),
  },
  photo: { photo: keptPicture, step: text(200) },
  timer: { running: boolean().required('is missing') },
  plan: {
    change: string().oneOf(['add', 'remove', 'reword'], 'must be add, remove or reword').required('is missing'),
    step: cardStep.required('is missing'),
    after: text(200).nullable(),
  },
};
const EVENT_KINDS = Object.keys(EVENTS) as JobEvent['kind'][];
const kinds = string()
  .oneOf(EVENT_KINDS, `must be one of ${EVENT_KINDS.join(', ')}`)
  .required('is missing');
/** An event of one of the kinds, with `more` fields on those that have them. */
function eventOf(more: Partial<Record<JobEvent['kind'], Record<string, Schema>>>) {
  const shapes = new Map<unknown, Schema>(
    EVENT_KINDS.map((kind) => [
      kind,
      object({ ...common, kind: kinds, ...EVENTS[kind], ...more[kind] })
        .noUnknown()
        .required(),
    ]),
  );
  const none = object({ ...common, kind: kinds }).required('must be an event');
  return lazy((value: unknown) => shapes.get((value as { kind?: unknown } | null)?.kind) ?? none);
}

const jobEvent = eventOf({});
/** As an archive keeps it: a tick that came in late says so. */
export const EVENTS_IN_FILE = eventOf({ tick: { late: boolean().oneOf([true]) } });

/** So many events are taken in at once, and held by one job. */
const MOST_EVENTS = 500;
export const MOST_IN_JOB = 5000;
/** So much of them an archive takes in again, bytes. */
export const MOST_BYTES_IN_JOB = 8 * 1024 * 1024;
export const eventsBody = object({
  events: list(jobEvent, MOST_EVENTS, 'is empty', `holds more than ${MOST_EVENTS}: send them in parts`),
}).required();

const askFor = {
  lengthMm: number().required(),
  markings: list(object({ text: needed(60), scheme: needed(60) }).required(), 20),
  plain: needed(200),
};
const lines = () => list(needed(400), 3000);

/** A sheet as it is begun with; the drive in it is read as every drive is. */
export const sheetBody = object({
  drive: mixed().required('is missing'),
  unit: string().oneOf(['mm', 'in'], 'must be mm or in').required('is missing'),
  belt: text(80).nullable().defined('is missing'),
  off: list(id(), 16),
  on: list(id(), 16),
  steps: list(cardStep, 3000, 'needs one step or more', 'has more than 3,000 steps'),
  bring: object({
    belts: list(
      object({
        ...askFor,
        belt: id(),
        section: needed(40),
        ribs: number().nullable().defined(),
        basis: needed(40),
        from: needed(20),
        second: object(askFor).nullable().defined(),
        number: text(60).nullable().defined(),
      }).required(),
      16,
    ),
    unknown: lines(),
    parts: lines(),
    bolts: lines(),
    tools: lines(),
  }).required('is missing'),
  estimate: object({
    minutes: number().min(0).max(1e6).required(),
    plusMinus: number().min(0).max(1e6).required(),
    jobs: number().integer().min(0).required(),
    hourRate: number().min(0).max(1e6).nullable().defined(),
    parts: list(
      object({
        name: needed(400),
        count: number().min(0).max(1000).required(),
        price: number().min(0).max(1e9).nullable().defined(),
      }).required(),
      200,
    ),
  }).default(undefined),
}).required('is missing');

export const newJobBody = object({
  id: uuid(),
  driveId: uuid(),
  by: text(80).defined('is missing'),
  at: moment().required('is missing'),
  sheet: sheetBody,
}).required();

export const signBody = object({
  by: needed(80).min(1, 'needs a name: who signs it off?'),
  at: moment().required('is missing'),
}).required();
