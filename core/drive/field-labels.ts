import { isSchema } from 'yup';
import { driveSchema } from './drive';
import type { FieldLabel, Named } from './fields';

/** A field of the drive file as its schema has it. */
export interface FileField extends FieldLabel {
  /** Whether a file that lacks it is refused. */
  needed: boolean;
  /** What is accepted, as a file that has something else is told. */
  accepted: readonly string[];
}

/** By the way to what holds the fields, list and field names alone: `belts.tensionReadings`. The drive itself is ''. */
type Tables<F> = Readonly<Record<string, Readonly<Record<string, F>>>>;

/** What is read of a schema, which Yup tells in no other way. */
interface Told {
  spec: {
    optional?: boolean;
    /** Of an object its fields, of a list what it holds, of one of several shapes each of them. */
    meta?: {
      fields?: Readonly<Record<string, Named<unknown>>>;
      item?: unknown;
      shapes?: readonly unknown[];
      needed?: boolean;
    };
  };
  tests?: readonly { OPTIONS?: { name?: string; message?: unknown } }[];
  internalTests?: Readonly<Record<string, { OPTIONS?: { message?: unknown } } | undefined>>;
}

/** Every field of a drive file, from the schemas that check one: a list's items', and those of every shape there is. */
export function fileFields(): Tables<FileField> {
  const tables: Record<string, Record<string, FileField>> = {};
  const look = (schema: unknown, way: string): void => {
    if (!isSchema(schema)) return;
    const { fields = {}, item, shapes = [] } = (schema as unknown as Told).spec.meta ?? {};
    for (const shape of shapes) look(shape, way);
    look(item, way);
    for (const [key, { label, unit, schema: inner }] of Object.entries(fields)) {
      // What this shape does not have, another of its kind does.
      if (label === undefined) continue;
      const table = (tables[way] ??= {});
      const before = table[key];
      const page = { needed: isNeeded(inner as Told), accepted: acceptedBy(inner as Told) };
      table[key] = {
        label,
        ...(unit && { unit }),
        needed: page.needed && (before?.needed ?? true),
        accepted: [...new Set([...(before?.accepted ?? []), ...page.accepted])],
      };
      look(inner, way === '' ? key : `${way}.${key}`);
    }
  };
  look(driveSchema, '');
  return tables;
}

const isNeeded = ({ spec }: Told) => spec.meta?.needed ?? spec.optional === false;

/** What is refused, each as it is told; that a part has to be a whole one says nothing of its own. */
function acceptedBy({ tests = [], internalTests = {} }: Told): string[] {
  const accepted = [internalTests['typeError'], internalTests['whiteList'], ...tests]
    .map((test) => test?.OPTIONS?.message)
    .filter((message): message is string => typeof message === 'string' && /^must (?!be an object)/.test(message))
    .map((message) => message.replace(/^must (be )?/, ''));
  // "a number" is said again by "a number from 0 to 9".
  return accepted.filter((message, k) => !accepted.some((other, l) => k !== l && other.startsWith(`${message} `)));
}

let labels: Tables<FieldLabel> | null = null;
/** The names and units of all fields; made when they are first asked for. */
export const fieldLabels = (): Tables<FieldLabel> =>
  (labels ??= Object.fromEntries(
    Object.entries(fileFields()).map(([way, table]) => [
      way,
      Object.fromEntries(
        Object.entries(table).map(([key, { label, unit }]) => [key, { label, ...(unit && { unit }) }]),
      ),
    ]),
  ));

/**
 * What a field of the file is called, with its unit, by where it stands: the same name means one thing in one list and
 * another in the next. A field that Emery does not know is called as it is written.
 */
export function fieldLabel(holder: string, field: string): FieldLabel {
  const table = fieldLabels()[holder] ?? {};
  return (Object.hasOwn(table, field) && table[field]) || { label: field };
}
