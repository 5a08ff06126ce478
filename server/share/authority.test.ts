import { execFileSync, spawnSync } from 'node:child_process';
import { X509Certificate } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fingerprintOf, identityFor } from './authority';

/* Held against OpenSSL, which knows nothing of how they were made. */
const DAY = 86_400_000;
const HOSTS = ['192.168.7.20', 'fd12:3456::7', 'emery.local', 'workbench', '203.0.113.9'];

let folder = '';
beforeEach(() => (folder = mkdtempSync(path.join(tmpdir(), 'emery-authority-'))));
afterEach(() => rmSync(folder, { recursive: true }));

const openssl = (...args: string[]) => execFileSync('openssl', args, { cwd: folder, encoding: 'utf8', stdio: 'pipe' });
/** What OpenSSL says of a certificate by the authority: nothing where it is good. */
function verified(file: string, ...more: string[]): string {
  const { status, stdout, stderr } = spawnSync(
    'openssl',
    ['verify', '-x509_strict', '-purpose', 'sslserver', ...more, '-CAfile', 'authority.crt', file],
    { cwd: folder, encoding: 'utf8' },
  );
  return status === 0 ? '' : `${stdout}${stderr}`;
}

test('the certificate is good for each host, for no other, and for as long as telephones accept', async () => {
  const { certificate, fingerprint, left, ends } = await identityFor(folder, HOSTS);
  expect(left).toEqual([]);
  for (const host of HOSTS)
    expect(verified('machine.crt', /[:]|^\d/.test(host) ? '-verify_ip' : '-verify_hostname', host)).toBe('');
  expect(verified('machine.crt', '-verify_hostname', 'emery.example')).toMatch(/hostname mismatch/i);
  expect(verified('machine.crt', '-verify_ip', '192.168.7.21')).toMatch(/IP address mismatch/i);
  const read = new X509Certificate(certificate);
  const days = (Date.parse(read.validTo) - Date.parse(read.validFrom)) / DAY;
  expect(days).toBeGreaterThan(380);
  expect(days).toBeLessThan(398);
  expect(ends.getTime()).toBe(Date.parse(read.validTo));
  expect(openssl('x509', '-in', 'authority.crt', '-noout', '-fingerprint', '-sha256').trim()).toMatch(
    new RegExp(`${fingerprint}$`),
  );
});

test('keys are for the owner of the process alone', async () => {
  await identityFor(folder, HOSTS);
  expect(statSync(folder).mode & 0o777).toBe(0o700);
  const files = readdirSync(folder).sort();
  expect(files).toEqual(['authority.crt', 'authority.key', 'machine.crt', 'machine.key']);
  for (const file of files) expect(statSync(path.join(folder, file)).mode & 0o777).toBe(0o600);
});

test('the authority cannot vouch for anything else: what it signs for a name of the world is refused', async () => {
  await identityFor(folder, HOSTS);
  for (const [name, kind] of [
    ['emery.example', 'DNS'],
    ['local.example', 'DNS'],
    ['198.51.100.4', 'IP'],
    ['203.0.113.10', 'IP'],
  ] as const) {
    openssl('ecparam', '-name', 'prime256v1', '-genkey', '-noout', '-out', 'other.key');
    openssl('req', '-new', '-key', 'other.key', '-subj', '/CN=other', '-out', 'other.csr');
    writeFileSync(path.join(folder, 'san'), `subjectAltName=${kind}:${name}\nextendedKeyUsage=serverAuth\n`);
    openssl(
      ...['x509', '-req', '-in', 'other.csr', '-CA', 'authority.crt', '-CAkey', 'authority.key', '-set_serial', '7'],
      ...['-days', '30', '-extfile', 'san', '-out', 'other.crt'],
    );
    expect([name, verified('other.crt')]).toEqual([name, expect.stringMatching(/permitted subtree violation/)]);
  }
  // Nor makes it other authorities.
  expect(openssl('x509', '-in', 'authority.crt', '-noout', '-ext', 'basicConstraints')).toMatch(/CA:TRUE, pathlen:0/);
});

test('the same hosts, the same certificate; others, another of the same authority', async () => {
  const first = await identityFor(folder, HOSTS);
  expect(await identityFor(folder, [...HOSTS].reverse())).toEqual(first);
  // A host that is said twice, as the machine's own address where it has no other.
  expect(await identityFor(folder, [...HOSTS, HOSTS[0]!])).toEqual(first);
  const moved = await identityFor(folder, ['192.168.9.4', 'emery.local']);
  expect(moved.fingerprint).toBe(first.fingerprint);
  expect(moved.certificate).not.toBe(first.certificate);
  expect(verified('machine.crt', '-verify_ip', '192.168.9.4')).toBe('');
  expect(verified('machine.crt', '-verify_ip', '192.168.7.20')).toMatch(/mismatch/);
});

test('an address of the world at large that was not there at first is left out, and told', async () => {
  await identityFor(folder, ['192.168.7.20']);
  const { left } = await identityFor(folder, ['192.168.7.20', '198.51.100.4', 'shop.example', '10.3.3.3', 'x.local']);
  expect(left).toEqual(['198.51.100.4', 'shop.example']);
  expect(verified('machine.crt', '-verify_ip', '10.3.3.3')).toBe('');
});

test('near its end it is made anew, the authority as well; what is broken on the disk is no obstacle', async () => {
  const now = Date.now();
  const first = await identityFor(folder, HOSTS, now);
  expect((await identityFor(folder, HOSTS, now + 350 * DAY)).certificate).toBe(first.certificate);
  const later = await identityFor(folder, HOSTS, now + 365 * DAY);
  expect(later.certificate).not.toBe(first.certificate);
  expect(later.fingerprint).toBe(first.fingerprint);
  // Set back by years, as where the battery of its clock is empty: what is from the future is good for nobody.
  expect((await identityFor(folder, HOSTS, now - 400 * DAY)).fingerprint).not.toBe(first.fingerprint);
  const before = await identityFor(folder, HOSTS, now);
  const old = await identityFor(folder, HOSTS, now + 3640 * DAY);
  expect(old.fingerprint).not.toBe(before.fingerprint);
  for (const file of ['machine.crt', 'machine.key', 'authority.key']) {
    writeFileSync(path.join(folder, file), readFileSync(path.join(folder, file)).subarray(0, 60));
    const mended = await identityFor(folder, HOSTS, now);
    expect(fingerprintOf(mended.authority)).toBe(mended.fingerprint);
    expect(verified('machine.crt', '-verify_hostname', 'emery.local')).toBe('');
  }
});
