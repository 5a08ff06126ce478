import { type InferType, number, object, string } from '../http/fields';

/** A vehicle as it is typed, and as files and archives carry it. */
export const vehicleBody = object({
  name: string()
    .trim('must not begin or end with a space')
    .min(1, 'needs a name')
    .max(120, 'must be 120 characters at most')
    .required('needs a name'),
  plate: string().max(40, 'must be 40 characters at most').default(''),
  odometer: number()
    .integer('must be a whole number')
    .min(0, 'must be 0 or more')
    .max(99_999_999, 'is too large')
    .nullable()
    .default(null),
  odometerUnit: string()
    .oneOf(['km', 'mi', 'h'] as const, 'must be km, mi or h')
    .default('km'),
  notes: string().max(4000, 'must be 4,000 characters at most').default(''),
}).required();
export type VehicleBody = InferType<typeof vehicleBody>;
