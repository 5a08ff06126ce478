import { randomUUID } from 'node:crypto';
import type { DataSource, EntityManager } from 'typeorm';
import { Person, type PersonRow } from './entity';
import { hashed, LONGEST_PASSPHRASE, SHORTEST_PASSPHRASE } from './passphrase';
import { FIELD, mostPeople, nameTaken, REFUSED } from './words';
import { object, string } from '../http/fields';
import { invalid, notFound } from '../http/problem';
import { alone } from '../storage/alone';
import { STAFF_ROLES, type PersonListed, type StaffRole } from '@emery/core/api';

const name = () => string().trim(FIELD.space).max(80, FIELD.long(80)).required(FIELD.whoIsIt);
export const passphrase = () =>
  string()
    .min(SHORTEST_PASSPHRASE, FIELD.short(SHORTEST_PASSPHRASE))
    .max(LONGEST_PASSPHRASE, FIELD.long(LONGEST_PASSPHRASE))
    .required(FIELD.missing);
const role = () => string<StaffRole>().oneOf(STAFF_ROLES, FIELD.role(STAFF_ROLES));

export const firstBody = object({ name: name(), passphrase: passphrase(), code: string().max(100) }).required();
export const personBody = object({
  name: name(),
  role: role().required(FIELD.missing),
  passphrase: passphrase(),
}).required();
/** What is left out stays. */
export const personChange = object({
  name: name().optional(),
  role: role(),
  passphrase: passphrase().optional(),
}).required();

/** Most that a shop has; each is looked through by name alone. */
const MOST_PEOPLE = 200;

const listed = ({ id, name, role, createdAt }: PersonRow): PersonListed<Date> => ({ id, name, role, createdAt });

export const listPeople = async (data: DataSource): Promise<PersonListed<Date>[]> =>
  (await data.getRepository(Person).find({ order: { createdAt: 'ASC' }, take: MOST_PEOPLE })).map(listed);

export const hasOwner = (manager: EntityManager): Promise<boolean> => manager.existsBy(Person, { role: 'owner' });

export interface NewPerson {
  name: string;
  role: StaffRole;
  passphrase: string;
}

/** Adds somebody; refuses a name that another has, for all that is done is written down by name. */
export async function addPerson(data: DataSource, { name, role, passphrase }: NewPerson): Promise<PersonRow> {
  const row: PersonRow = {
    ...{ id: randomUUID(), name, role, passphrase: await hashed(passphrase), createdAt: new Date() },
  };
  await alone(data, 'people', async () => {
    if ((await data.manager.count(Person)) >= MOST_PEOPLE)
      throw invalid([{ path: '', message: mostPeople(MOST_PEOPLE) }]);
    await refuseTaken(data.manager, name, null);
    await data.manager.insert(Person, row);
  });
  return row;
}

async function refuseTaken(manager: EntityManager, name: string, own: string | null): Promise<void> {
  const other = await manager.findOneBy(Person, { name });
  if (other && other.id !== own) throw invalid([{ path: 'name', message: nameTaken(other.name) }]);
}

export interface PersonChange {
  name?: string | undefined;
  role?: StaffRole | undefined;
  passphrase?: string | undefined;
}

/** Changes somebody; the last owner stays one. */
export async function changePerson(
  data: DataSource,
  id: string,
  { name, role, passphrase }: PersonChange,
): Promise<{ before: PersonRow; after: PersonListed<Date> }> {
  const key = passphrase === undefined ? undefined : await hashed(passphrase);
  return alone(data, 'people', async () => {
    const before = await data.manager.findOneBy(Person, { id });
    if (!before) throw notFound('person');
    if (name !== undefined) await refuseTaken(data.manager, name, id);
    if (role !== undefined && role !== 'owner') await refuseLast(data.manager, before);
    const change = { ...(name !== undefined && { name }), ...(role && { role }), ...(key && { passphrase: key }) };
    if (Object.keys(change).length > 0) await data.manager.update(Person, { id }, change);
    return { before, after: listed({ ...before, ...change }) };
  });
}

export async function removePerson(data: DataSource, id: string): Promise<PersonRow> {
  return alone(data, 'people', async () => {
    const row = await data.manager.findOneBy(Person, { id });
    if (!row) throw notFound('person');
    await refuseLast(data.manager, row);
    await data.manager.delete(Person, { id });
    return row;
  });
}

async function refuseLast(manager: EntityManager, { role }: PersonRow): Promise<void> {
  if (role === 'owner' && (await manager.countBy(Person, { role: 'owner' })) === 1)
    throw invalid([{ path: 'role', message: REFUSED.lastOwner }]);
}
