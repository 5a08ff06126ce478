import { createCipheriv, createDecipheriv, randomBytes, scrypt } from 'node:crypto';
import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import { promisify } from 'node:util';
import { Decrypter, Encrypter, type Identity, type Recipient, Stanza } from 'age-encryption';
import { KEEP } from './words';

/*
 * Sealing by a passphrase in the age format. The library works out the key on the thread that asks, which would hold
 * every request for a second: that one step is made here by Node's scrypt, beside the loop, as the format has it
 * (the `scrypt` recipient stanza of age-encryption.org/v1).
 */
const LABEL = 'age-encryption.org/v1/scrypt';
/** Of the work that finding a passphrase by trying takes, the logarithm: as age itself has it. */
const WORK = 18;
const MOST_WORK = 20;

type Scrypt = (text: string, salt: Buffer, bytes: number, cost: object) => Promise<Buffer>;

function keyOf(passphrase: string, salt: Buffer, work: number): Promise<Buffer> {
  const cost = { N: 2 ** work, r: 8, p: 1, maxmem: 2 * 1024 * 8 * 2 ** work };
  // A passphrase is the same however its letters were composed.
  return (promisify(scrypt) as unknown as Scrypt)(
    passphrase.normalize('NFC'),
    Buffer.concat([Buffer.from(LABEL), salt]),
    32,
    cost,
  );
}

const NONCE = Buffer.alloc(12);
const CIPHER = 'chacha20-poly1305';
const TAG = { authTagLength: 16 } as const;
const text64 = (bytes: Buffer) => bytes.toString('base64').replace(/=+$/, '');

const recipientOf = (passphrase: string, work: number): Recipient => ({
  wrapFileKey: async (fileKey) => {
    const salt = randomBytes(16);
    const cipher = createCipheriv(CIPHER, await keyOf(passphrase, salt, work), NONCE, TAG);
    const body = Buffer.concat([cipher.update(fileKey), cipher.final(), cipher.getAuthTag()]);
    return [new Stanza(['scrypt', text64(salt), String(work)], new Uint8Array(body))];
  },
});

const identityOf = (passphrase: string): Identity => ({
  unwrapFileKey: async ([stanza, ...others]) => {
    const [kind = '', salt64 = '', workText = ''] = stanza?.args ?? [];
    if (!stanza || kind !== 'scrypt' || others.length > 0) throw new Error(KEEP.otherSeal);
    const [salt, work] = [Buffer.from(salt64, 'base64'), Number(workText)];
    if (salt.length !== 16 || stanza.body.length !== 32 || !(Number.isInteger(work) && work > 0 && work <= MOST_WORK))
      throw new Error(KEEP.otherSeal);
    const cipher = createDecipheriv(CIPHER, await keyOf(passphrase, salt, work), NONCE, TAG);
    cipher.setAuthTag(stanza.body.subarray(16));
    try {
      return new Uint8Array(Buffer.concat([cipher.update(stanza.body.subarray(0, 16)), cipher.final()]));
    } catch {
      return null;
    }
  },
});

/** What is sealed with a passphrase, as it comes. */
export async function sealed(plain: Readable, passphrase: string, work = WORK): Promise<Readable> {
  const encrypter = new Encrypter();
  encrypter.addRecipient(recipientOf(passphrase, work));
  return Readable.fromWeb((await encrypter.encrypt(Readable.toWeb(plain) as never)) as unknown as ReadableStream);
}

/** What was sealed, opened as it comes; each piece has been held against its own mark before it comes out. */
export async function unsealed(file: Readable, passphrase: string): Promise<Readable> {
  const decrypter = new Decrypter();
  decrypter.addIdentity(identityOf(passphrase));
  try {
    return Readable.fromWeb((await decrypter.decrypt(Readable.toWeb(file) as never)) as unknown as ReadableStream);
  } catch (error) {
    if (/no identity matched/.test((error as Error).message)) throw new Error(KEEP.wrongPassphrase, { cause: error });
    throw error;
  }
}
