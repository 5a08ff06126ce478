import { setLocale } from 'yup';

/*
 * What requests and archives are read by: Yup, with messages that stand behind the name of a field, as ours do. Its own
 * would name the field a second time, and some run over several lines.
 */
const KINDS: Readonly<Record<string, string>> = {
  string: 'text',
  number: 'a number',
  boolean: 'true or false',
  object: 'an object',
  array: 'a list',
  date: 'a time',
};

setLocale({
  mixed: {
    default: 'is not accepted',
    required: 'is missing',
    defined: 'is missing',
    notNull: 'must not be null',
    oneOf: ({ values }: { values: unknown }) => `must be one of ${String(values)}`,
    notType: ({ type }: { type: string }) => `must be ${KINDS[type] ?? type}`,
  },
  string: {
    min: ({ min }: { min: number }) => `must be ${min} characters or more`,
    max: ({ max }: { max: number }) => `must be ${max.toLocaleString('en')} characters at most`,
    matches: 'has the wrong form',
    uuid: 'must be a UUID',
    trim: 'must not begin or end with a space',
  },
  number: {
    min: ({ min }: { min: number }) => `must be ${min.toLocaleString('en')} or more`,
    max: ({ max }: { max: number }) => `must be ${max.toLocaleString('en')} at most`,
    moreThan: ({ more }: { more: number }) => `must be more than ${more}`,
    integer: 'must be a whole number',
  },
  object: {
    noUnknown: ({ unknown }: { unknown: readonly string[] }) =>
      `has an unknown field: ${String(unknown).slice(0, 100)}`,
  },
  array: {
    min: ({ min }: { min: number }) => `must have ${min} or more`,
    max: ({ max }: { max: number }) => `must have ${max.toLocaleString('en')} items at most`,
  },
});

export { array, boolean, lazy, mixed, number, object, string, ValidationError, type InferType, type Schema } from 'yup';
export { list, optionalList } from '@emery/core/drive';
