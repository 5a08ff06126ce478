import { createHash, timingSafeEqual } from 'node:crypto';
import type { Request, Router } from 'express';
import type { DataSource } from 'typeorm';
import { accessOf } from './access';
import { addressOf, callerOf } from './caller';
import { Person, type PersonRow } from './entity';
import { isPassphrase } from './passphrase';
import { addPerson, changePerson, firstBody, hasOwner, passphrase } from './people';
import { endSessions, signIn } from './sessions';
import { meOf, tell } from './tell';
import { FIELD, REFUSED } from './words';
import { object, string } from '../http/fields';
import { bodyOf, Problem } from '../http/problem';

const signInBody = object({
  name: string().max(200).required(FIELD.missing),
  passphrase: string().max(1000).required(FIELD.missing),
}).required();
const redeemBody = object({ token: string().max(100), digits: string().max(20) }).required();
const ownBody = object({ now: string().max(1000).required(FIELD.missing), passphrase: passphrase() }).required();

/** A cookie is set over HTTPS alone; without it nobody could stay signed in. */
function needsDoor(request: Request): void {
  if (callerOf(request).machine) throw new Problem(409, 'Not needed', REFUSED.machineNeedsNone);
  if (!request.secure) throw new Problem(409, 'Not over HTTPS', REFUSED.notOverHttps);
}

/** The same length of time whatever is right of it. */
const isSame = (a: string, b: string) =>
  timingSafeEqual(createHash('sha256').update(a).digest(), createHash('sha256').update(b).digest());

/** Who is here; in by passphrase or by a code, and out. */
export function enterRoutes(router: Router, data: DataSource): void {
  router.get('/me', async (request, response) => {
    response.json(await meOf(data, request));
  });

  router.post('/sign-in', async (request, response) => {
    const { name, passphrase } = await bodyOf(signInBody, request.body);
    needsDoor(request);
    const { attempts, audit } = accessOf(data);
    const address = addressOf(request);
    const person = await data.getRepository(Person).findOneBy({ name: name.trim() });
    await attempts.begin(person?.id ?? null, address).catch((error: unknown) => {
      audit.count({ kind: 'slowed', who: person?.name ?? 'unknown name', address, what: 'sign-in' });
      throw error;
    });
    if (!(await isPassphrase(passphrase, person?.passphrase ?? null)) || !person) {
      audit.count({ kind: 'wrong-passphrase', who: person?.name ?? 'unknown name', address, what: 'sign-in' });
      throw new Problem(403, 'Not signed in', REFUSED.wrongPassphrase);
    }
    await attempts.right(person.id, address);
    await enterAs(data, request, person, 'passphrase');
    await tell(data, request, 'sign-in', 'by passphrase');
    response.json(await meOf(data, request));
  });

  router.post('/redeem', async (request, response) => {
    const { token, digits } = await bodyOf(redeemBody, request.body);
    needsDoor(request);
    const place = await redeem(data, request, { token, digits: digits?.replace(/\D/g, '') });
    response.json({ me: await meOf(data, request), place });
  });

  router.post('/sign-out', async (request, response) => {
    const { device } = callerOf(request);
    if (device) {
      await tell(data, request, 'sign-out', 'this device');
      await endSessions(data, { id: device }, 'signed-out');
    }
    // Pictures that the browser has kept go with whoever saw them; what was typed and is not sent yet stays.
    response.set('Clear-Site-Data', '"cache"').status(204).end();
  });
}

/** The first owner, and one's own passphrase. */
export function ownRoutes(router: Router, data: DataSource): void {
  // The first share makes the owner: at the machine, or with the code told at its terminal.
  router.post('/first', async (request, response) => {
    const { name, passphrase, code } = await bodyOf(firstBody, request.body);
    const { machine } = callerOf(request);
    const { attempts, ownerCode } = accessOf(data);
    if (!machine) {
      needsDoor(request);
      await attempts.beginCode(addressOf(request));
      if (!isSame(code ?? '', ownerCode)) throw new Problem(403, 'Not allowed', REFUSED.firstAtMachine);
    }
    if (await hasOwner(data.manager)) throw new Problem(409, 'There is an owner', REFUSED.ownerThere);
    const person = await addPerson(data, { name, role: 'owner', passphrase });
    if (!machine) await enterAs(data, request, person, 'first');
    await tell(data, request, 'people', `first owner ${name}`);
    response.status(201).json(await meOf(data, request));
  });

  router.put('/passphrase', async (request, response) => {
    const body = await bodyOf(ownBody, request.body);
    const { person: id, device } = callerOf(request);
    if (id === null) throw new Problem(409, 'Nobody is signed in', REFUSED.nobodySignedIn);
    const { attempts, underWay } = accessOf(data);
    const own = await data.getRepository(Person).findOneByOrFail({ id });
    await attempts.begin(id, addressOf(request));
    if (!(await isPassphrase(body.now, own.passphrase)))
      throw new Problem(422, 'Not accepted', REFUSED.presentWrong, [{ path: 'now', message: 'is another' }]);
    await attempts.right(id, addressOf(request));
    await changePerson(data, id, { passphrase: body.passphrase });
    underWay.cut(await endSessions(data, { personId: id }, 'passphrase', device));
    await tell(data, request, 'people', 'own passphrase');
    response.status(204).end();
  });
}

const enterAs = (data: DataSource, request: Request, person: PersonRow, cameBy: 'passphrase' | 'code' | 'first') =>
  signIn(data, request, { personId: person.id, jobId: null, name: person.name, cameBy, role: person.role });

/** Uses a code up, and signs the device in as it says. The page to go to. */
async function redeem(
  data: DataSource,
  request: Request,
  { token, digits }: { token: string | undefined; digits: string | undefined },
): Promise<string> {
  const { attempts, codes, audit } = accessOf(data);
  const address = addressOf(request);
  await attempts.beginCode(address).catch((error: unknown) => {
    audit.count({ kind: 'slowed', who: 'nobody', address, what: 'code' });
    throw error;
  });
  const { brought, guessed } =
    token === undefined ? codes.byDigits(digits ?? '') : { brought: codes.byToken(token), guessed: false };
  if (guessed) await tell(data, request, 'wrong-code', REFUSED.guessed);
  if (!brought) {
    audit.count({ kind: 'wrong-code', who: 'nobody', address, what: token === undefined ? 'digits' : 'QR code' });
    throw new Problem(403, 'Code not good', REFUSED.codeNotGood);
  }
  const { person: id, job, name, place, by } = brought;
  const person = id === null ? null : await data.getRepository(Person).findOneBy({ id });
  if (id !== null && !person) throw new Problem(403, 'Code not good', REFUSED.showerGone);
  await attempts.rightCode(address);
  if (person) await enterAs(data, request, person, 'code');
  else await signIn(data, request, { personId: null, jobId: job, name, cameBy: 'code', role: 'lent' });
  await tell(data, request, person ? 'sign-in' : 'lent', by);
  return place;
}
