import type { Request, Router } from 'express';
import type { DataSource } from 'typeorm';
import { accessOf } from './access';
import { tooMany } from './attempts';
import { callerOf, nameOf } from './caller';
import { Person } from './entity';
import { FIELD, REFUSED, shownBy } from './words';
import { object, string } from '../http/fields';
import { bodyOf, notFound, Problem } from '../http/problem';
import type { BringCode } from '@emery/core/api';

const codeBody = object({
  /** A page of Emery's own: no other address is ever gone to by a code. */
  place: string()
    .matches(/^\/(?!\/)[^\\]*$/, FIELD.place)
    .max(400, FIELD.long(400))
    .required(FIELD.missing),
  person: string().max(36),
  job: string().max(36),
  name: string().max(80, FIELD.long(80)),
}).required();

/** Codes that bring another device in. */
export function codeRoutes(router: Router, data: DataSource): void {
  router.post('/codes', async (request, response) => {
    const { place, person, job, name } = await bodyOf(codeBody, request.body);
    const access = accessOf(data);
    const address = access.sharing.addressFor(request.get('host') ?? '');
    if (address === null) throw new Problem(409, 'Not shared', REFUSED.notShared);
    const caller = callerOf(request);
    const by = shownBy(caller.machine ? null : nameOf(caller));
    const brought =
      job === undefined
        ? await whomToBring(data, request, person)
        : { person: null, job: await jobToLend(data, request, job), name: nameToLend(name) };
    const made = access.codes.make({ ...brought, place, by });
    if (!made) throw tooMany(60_000, REFUSED.tooManyCodes);
    const code: BringCode<Date> = {
      id: made.id,
      link: `${address}/in#${made.token}`,
      digits: made.digits,
      typeAt: `${address}/in`,
      expiresAt: new Date(made.expires),
    };
    response.status(201).json(code);
  });

  router.get('/codes/:id', (request, response) => {
    response.json({ state: accessOf(data).codes.stateOf(request.params.id) });
  });

  router.delete('/codes/:id', (request, response) => {
    accessOf(data).codes.withdraw(request.params.id);
    response.status(204).end();
  });
}

/** A device is brought in as who shows the code; at the machine, where nobody signs in, as whom is said there. */
async function whomToBring(data: DataSource, request: Request, asked: string | undefined) {
  const caller = callerOf(request);
  const people = data.getRepository(Person);
  const first = () => people.findOne({ where: { role: 'owner' }, order: { createdAt: 'ASC' } });
  const atMachine = asked === undefined ? first : () => people.findOneBy({ id: asked });
  const person = await (caller.machine ? atMachine() : people.findOneBy({ id: caller.person ?? '' }));
  if (!person) throw asked === undefined ? new Problem(409, 'No owner yet', REFUSED.noOwner) : notFound('person');
  return { person: person.id, job: null, name: person.name };
}

async function jobToLend(data: DataSource, request: Request, id: string): Promise<string> {
  const { role } = callerOf(request);
  if (role !== 'owner' && role !== 'bench') throw new Problem(403, 'Not allowed', REFUSED.counterLends);
  const [job] = await data.query<{ signedAt: Date | null }[]>('SELECT signedAt FROM job WHERE id = ?', [id]);
  if (!job) throw notFound('job');
  if (job.signedAt) throw new Problem(409, 'Signed off', REFUSED.jobSigned);
  return id;
}

function nameToLend(name: string | undefined): string {
  const given = name?.trim() ?? '';
  if (given === '')
    throw new Problem(422, 'Not accepted', `Lent to: ${REFUSED.nameToLend}.`, [
      { path: 'name', message: REFUSED.nameToLend },
    ]);
  return given;
}
