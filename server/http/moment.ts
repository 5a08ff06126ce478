import { string } from './fields';
import { isMoment } from '@emery/core/drive';

/** The one kind of time that the API takes, whatever it is the time of. */
export const moment = () =>
  string().test(
    'moment',
    'must be a time such as 2026-11-26T10:00:00Z, from 1900 to 2199',
    (value) => value === undefined || value === null || isMoment(value),
  );
