import { mixed, object } from './fields';

/** A body that brings in a list of rows, in place of what is there or beside it; who takes them reads each. */
export const rowsBody = (max: number) =>
  object({
    replace: mixed<boolean>().test(
      'boolean',
      'must be true or false',
      (value) => value === undefined || typeof value === 'boolean',
    ),
    rows: mixed<unknown[]>()
      .required('is missing')
      .test('list', 'must be a list', (value) => value === undefined || Array.isArray(value))
      .test(
        'most',
        `holds more than ${max.toLocaleString('en')} rows`,
        (value) => !Array.isArray(value) || value.length <= max,
      ),
  }).required();
