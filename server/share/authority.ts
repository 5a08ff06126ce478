import 'reflect-metadata';
import { createHash, randomBytes, webcrypto } from 'node:crypto';
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { BlockList, isIP } from 'node:net';
import path from 'node:path';
import { AsnConvert } from '@peculiar/asn1-schema';
import {
  GeneralName,
  GeneralSubtree,
  GeneralSubtrees,
  id_ce_nameConstraints,
  NameConstraints,
} from '@peculiar/asn1-x509';
import {
  BasicConstraintsExtension,
  cryptoProvider,
  ExtendedKeyUsage,
  ExtendedKeyUsageExtension,
  Extension,
  KeyUsageFlags,
  KeyUsagesExtension,
  PemConverter,
  SubjectAlternativeNameExtension,
  SubjectKeyIdentifierExtension,
  AuthorityKeyIdentifierExtension,
  X509Certificate,
  X509CertificateGenerator,
} from '@peculiar/x509';

const crypto = webcrypto;
cryptoProvider.set(crypto);

const DAY = 86_400_000;
const ALGORITHM = { name: 'ECDSA', namedCurve: 'P-256', hash: 'SHA-256' };
const AUTHORITY_DAYS = 3650;
/** Telephones refuse a certificate that is good for longer than 398 days. */
const CERTIFICATE_DAYS = 390;
/** One is made anew with so much left of it. */
const RENEW_DAYS = 30;
/** A telephone whose clock is slow accepts it all the same. */
const EARLIER_DAYS = 1;

/** Addresses that belong to no one in the world at large (RFC 1918, 3927, 4193, 6598), and this machine's own. */
const PRIVATE = [
  ...['10.0.0.0/8', '172.16.0.0/12', '192.168.0.0/16', '169.254.0.0/16', '100.64.0.0/10', '127.0.0.0/8'],
  ...['fc00::/7', '::1/128'],
];

/** A certificate and its key, as PEM (RFC 7468). */
export interface Pair {
  certificate: string;
  key: string;
}

/** What vouches for this machine on the shop's network, and what it vouches with. */
export interface Identity extends Pair {
  authority: string;
  /** SHA-256 of the authority's certificate, in pairs of hexadecimal digits. */
  fingerprint: string;
  ends: Date;
  /** Names and addresses that were asked for and that the authority does not vouch for. */
  left: string[];
}

export const fingerprintOf = (pem: string): string =>
  createHash('sha256')
    .update(Buffer.from(new X509Certificate(pem).rawData))
    .digest('hex')
    .toUpperCase()
    .match(/../g)!
    .join(':');

/** Names are vouched for below `.local` and as they are; addresses where they are private or were there at first. */
interface Limits {
  names: string[];
  subnets: string[];
}

const limitsAtFirst = (hosts: readonly string[]): Limits => ({
  names: ['local', 'localhost', ...hosts.filter((host) => isIP(host) === 0 && !host.endsWith('.local'))],
  subnets: [...PRIVATE, ...hosts.filter(isIP).map((host) => `${host}/${isIP(host) === 4 ? 32 : 128}`)],
});

function limitsExtension({ names, subnets }: Limits): Extension {
  const bases = [
    ...names.map((dNSName) => new GeneralName({ dNSName })),
    ...subnets.map((iPAddress) => new GeneralName({ iPAddress })),
  ];
  const permittedSubtrees = new GeneralSubtrees(bases.map((base) => new GeneralSubtree({ base })));
  return new Extension(id_ce_nameConstraints, true, AsnConvert.serialize(new NameConstraints({ permittedSubtrees })));
}

function limitsOf(certificate: X509Certificate): Limits {
  const found = certificate.getExtension(id_ce_nameConstraints);
  if (!found) return { names: [], subnets: [] };
  const { permittedSubtrees } = AsnConvert.parse(found.value, NameConstraints);
  const bases = [...(permittedSubtrees ?? [])].map(({ base }) => base);
  return {
    names: bases.flatMap(({ dNSName }) => dNSName ?? []),
    subnets: bases.flatMap(({ iPAddress }) => iPAddress ?? []),
  };
}

/** Whether the limits of an authority take a name or an address in (RFC 5280, 4.2.1.10). */
function isWithin({ names, subnets }: Limits, host: string): boolean {
  const family = isIP(host);
  if (family === 0) return names.some((name) => host === name || host.endsWith(`.${name}`));
  const list = new BlockList();
  const kind = family === 4 ? 'ipv4' : 'ipv6';
  for (const subnet of subnets) {
    const [net = '', bits] = subnet.split('/');
    if (isIP(net) === family) list.addSubnet(net, Number(bits), kind);
  }
  return list.check(host, kind);
}

const newKeys = () => crypto.subtle.generateKey(ALGORITHM, true, ['sign', 'verify']);
const serial = () => `4${randomBytes(15).toString('hex')}`;
const pemOf = async (key: webcrypto.CryptoKey) =>
  PemConverter.encode(await crypto.subtle.exportKey('pkcs8', key), 'PRIVATE KEY');
const keyOf = (pem: string) =>
  crypto.subtle.importKey('pkcs8', PemConverter.decodeFirst(pem), ALGORITHM, true, ['sign']);

async function newAuthority(hosts: readonly string[], now: number): Promise<Pair> {
  const keys = await newKeys();
  // Told apart by its number where a phone was told to trust an earlier one.
  const mark = randomBytes(3).toString('hex');
  const certificate = await X509CertificateGenerator.createSelfSigned({
    serialNumber: serial(),
    name: `CN=Emery of this shop ${mark}`,
    notBefore: new Date(now - EARLIER_DAYS * DAY),
    notAfter: new Date(now + AUTHORITY_DAYS * DAY),
    signingAlgorithm: ALGORITHM,
    keys,
    extensions: [
      new BasicConstraintsExtension(true, 0, true),
      new KeyUsagesExtension(KeyUsageFlags.keyCertSign | KeyUsageFlags.cRLSign, true),
      await SubjectKeyIdentifierExtension.create(keys.publicKey, false, crypto),
      limitsExtension(limitsAtFirst(hosts)),
    ],
  });
  return { certificate: certificate.toString('pem'), key: await pemOf(keys.privateKey) };
}

async function newCertificate(authority: Pair, hosts: readonly string[], now: number): Promise<Pair> {
  const issuer = new X509Certificate(authority.certificate);
  const keys = await newKeys();
  const certificate = await X509CertificateGenerator.create({
    serialNumber: serial(),
    subject: `CN=${hosts.find((host) => isIP(host) === 0) ?? 'Emery'}`,
    issuer: issuer.subject,
    notBefore: new Date(now - EARLIER_DAYS * DAY),
    notAfter: new Date(Math.min(now + CERTIFICATE_DAYS * DAY, issuer.notAfter.getTime())),
    signingAlgorithm: ALGORITHM,
    publicKey: keys.publicKey,
    signingKey: await keyOf(authority.key),
    extensions: [
      new BasicConstraintsExtension(false, undefined, true),
      new KeyUsagesExtension(KeyUsageFlags.digitalSignature, true),
      new ExtendedKeyUsageExtension([ExtendedKeyUsage.serverAuth]),
      await SubjectKeyIdentifierExtension.create(keys.publicKey, false, crypto),
      await AuthorityKeyIdentifierExtension.create(issuer.publicKey, false, crypto),
      new SubjectAlternativeNameExtension(
        hosts.map((value) => ({ type: isIP(value) === 0 ? ('dns' as const) : ('ip' as const), value })),
      ),
    ],
  });
  return { certificate: certificate.toString('pem'), key: await pemOf(keys.privateKey) };
}

const isGood = (certificate: X509Certificate, now: number) =>
  certificate.notBefore.getTime() <= now && certificate.notAfter.getTime() - RENEW_DAYS * DAY > now;

/** Whether a certificate is the authority's, is good for a while, and says all of the hosts and no others. */
async function isFor(pair: Pair, authority: Pair, hosts: readonly string[], now: number): Promise<boolean> {
  const certificate = new X509Certificate(pair.certificate);
  const publicKey = await new X509Certificate(authority.certificate).publicKey.export(crypto);
  if (!isGood(certificate, now) || !(await certificate.verify({ publicKey, signatureOnly: true }, crypto)))
    return false;
  const said = certificate.getExtension(SubjectAlternativeNameExtension)?.names.items.map(({ value }) => value) ?? [];
  return said.length === hosts.length && new Set([...said, ...hosts]).size === hosts.length;
}

/**
 * The identity of this machine for the hosts it is reached by, out of a folder that the owner of the process alone
 * reads. What is there is used where it still fits; the certificate is made anew where the hosts have changed or it
 * nears its end, and the authority where there is none or it nears its own.
 */
export async function identityFor(folder: string, hosts: readonly string[], now = Date.now()): Promise<Identity> {
  await mkdir(folder, { recursive: true, mode: 0o700 });
  const kept = await readPair(folder, 'authority');
  const good = kept !== null && isGood(new X509Certificate(kept.certificate), now);
  const authority = good ? kept : await newAuthority(hosts, now);
  if (!good) await writePair(folder, 'authority', authority);
  const limits = limitsOf(new X509Certificate(authority.certificate));
  // A host that is named twice, as the machine's own address where it is the only one, counts once.
  const within = [...new Set(hosts)].filter((host) => isWithin(limits, host));
  const there = await readPair(folder, 'machine');
  const fits = there !== null && (await isFor(there, authority, within, now));
  const pair = fits ? there : await newCertificate(authority, within, now);
  if (!fits) await writePair(folder, 'machine', pair);
  return {
    ...pair,
    authority: authority.certificate,
    fingerprint: fingerprintOf(authority.certificate),
    ends: new X509Certificate(pair.certificate).notAfter,
    left: hosts.filter((host) => !within.includes(host)),
  };
}

/** Null where there is none that can be read: one that was cut off in the middle is made anew. */
async function readPair(folder: string, name: string): Promise<Pair | null> {
  try {
    const [certificate, key] = await Promise.all(
      ['crt', 'key'].map((kind) => readFile(path.join(folder, `${name}.${kind}`), 'utf8')),
    );
    new X509Certificate(certificate!);
    await keyOf(key!);
    return { certificate: certificate!, key: key! };
  } catch {
    return null;
  }
}

async function writePair(folder: string, name: string, { certificate, key }: Pair): Promise<void> {
  for (const [kind, text] of [
    ['key', key],
    ['crt', certificate],
  ] as const) {
    const file = path.join(folder, `${name}.${kind}`);
    await writeFile(`${file}.new`, text, { mode: 0o600 });
    await rename(`${file}.new`, file);
  }
}

/** The certificate in the form that telephones take from a page. */
export const derOf = (pem: string): Buffer => Buffer.from(new X509Certificate(pem).rawData);
