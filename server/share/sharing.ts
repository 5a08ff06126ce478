import { X509Certificate as X509 } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import type { RequestListener } from 'node:http';
import http from 'node:http';
import https from 'node:https';
import type { AddressInfo, Server } from 'node:net';
import { DEFAULT_NAME, inAddress, machineNames, networkAddresses, readHost } from './addresses';
import { announce, type Announced } from './announce';
import { fingerprintOf, type Identity, identityFor } from './authority';
import { onePort } from './one-port';
import { plainServer } from './plain-page';
import { cannotListen, cannotShare, NO_NETWORK } from './words';
import type { SharingState } from '@emery/core/api';

/** How often the addresses of this machine and the end of its certificate are looked at, ms. */
const LOOK_MS = 15_000;
/** A handshake that is not done by then is let go, ms. */
const HANDSHAKE_MS = 10_000;
/** A shop has fewer devices than this has connections. */
const MOST_CONNECTIONS = 2000;

export interface SharingOptions {
  /** 0 for one that is free. */
  port: number;
  /** The address to listen at; all of them where none is said. */
  host?: string | undefined;
  /** Where the authority and its keys are kept. */
  folder: string;
  /** `https://…`: the shop's own address, before which its own proxy or certificate stands. */
  origin?: string | undefined;
  /** The shop's own certificate for that address; without it the proxy speaks plain http to Emery. */
  certificate?: { certificateFile: string; keyFile: string } | undefined;
  /** Tells the network the name; off in tests that are not about it. */
  announced?: boolean;
  /** For tests: the addresses of this machine. */
  addresses?: () => string[];
  /** Told when addresses or certificate have changed. */
  onChange?: (state: SharingState<Date>) => void;
}

interface Door {
  listener: Server;
  /** Takes what is encrypted; null behind a proxy. */
  secure: https.Server | null;
  cutOff: () => void;
}

/** The door for other devices: shut until it is asked for. */
export class Sharing {
  private door: Door | null = null;
  private app: RequestListener | null = null;
  private identity: Identity | null = null;
  private announced: Announced | null = null;
  private timer: NodeJS.Timeout | null = null;
  private problem: string | null = null;
  private ownEnds: Date | null = null;
  /** Whether it is to be open: it is tried again while it cannot be. */
  private wanted = false;
  /** The addresses that the name is told for. */
  private announcedFor = '';
  /** The state as it was told last. */
  private told = '';
  private line: Promise<unknown> = Promise.resolve();

  constructor(private readonly options: SharingOptions) {}

  /** What answers at the door. */
  serve(app: RequestListener): void {
    this.app = app;
  }

  private addresses(): string[] {
    const { host, addresses = networkAddresses } = this.options;
    const all = addresses();
    return host === undefined || host === '0.0.0.0' || host === '::' ? all : [host];
  }

  private names(): string[] {
    return [this.announced?.name ?? DEFAULT_NAME, ...machineNames()].filter((name, k, all) => all.indexOf(name) === k);
  }

  private get port(): number {
    return (this.door?.listener.address() as AddressInfo | null)?.port ?? this.options.port;
  }

  /** Whether a host is one that this machine is reached by from outside. */
  isOurs = (host: string): boolean => {
    const { origin } = this.options;
    if (origin !== undefined) return host === new URL(origin).hostname.replace(/^\[|\]$/g, '');
    return this.names().includes(host) || this.addresses().includes(host);
  };

  /** Whether a request came to an address of ours: by its `Host`, and by its `Origin` where it has one. */
  isOwnPage(hostHeader: string, origin: string | undefined): boolean {
    const read = readHost(hostHeader);
    if (!read || !this.isOurs(read.host)) return false;
    if (origin === undefined) return true;
    return origin === (this.options.origin ?? `https://${hostHeader}`);
  }

  /** The address for another device: the one asked at where it is ours, else the likeliest. Null while shut. */
  addressFor(hostHeader: string): string | null {
    if (!this.door) return null;
    const { addresses } = this.state();
    const asked = `https://${hostHeader}`;
    return addresses.includes(asked) ? asked : (addresses[0] ?? null);
  }

  state(): SharingState<Date> {
    const { origin } = this.options;
    const on = this.door !== null;
    const own = (host: string) => `https://${inAddress(host)}:${this.port}`;
    const hosts = [...this.addresses(), ...(this.announced ? [this.announced.name] : [])];
    const reached = origin === undefined ? hosts.map(own) : [origin];
    const plain = this.addresses()[0] ?? this.names()[0];
    return {
      on,
      addresses: on ? reached : [],
      trustPage: on && origin === undefined && plain !== undefined ? `http://${inAddress(plain)}:${this.port}` : null,
      fingerprint: on ? (this.identity?.fingerprint ?? null) : null,
      certificateEnds: on ? (this.identity?.ends ?? this.ownEnds) : null,
      announced: this.announced?.name ?? null,
      problem: this.problem,
      left: this.identity?.left ?? [],
    };
  }

  on(): Promise<SharingState<Date>> {
    this.wanted = true;
    this.timer ??= setInterval(() => void this.look(), LOOK_MS).unref();
    return this.inTurn(() => this.open());
  }

  off(): Promise<SharingState<Date>> {
    this.wanted = false;
    if (this.timer) clearInterval(this.timer);
    this.timer = null;
    return this.inTurn(() => this.close());
  }

  private inTurn(work: () => Promise<void>): Promise<SharingState<Date>> {
    const own = this.line.then(work);
    this.line = own.catch(() => undefined);
    return own.then(() => this.state());
  }

  private async open(): Promise<void> {
    if (this.door) return;
    this.problem = null;
    const { origin, certificate, host, port } = this.options;
    if (origin === undefined && this.addresses().length === 0) {
      this.problem = NO_NETWORK;
      return;
    }
    let door: Door | null = null;
    try {
      await this.tellName();
      door = await this.makeDoor();
      door.listener.maxConnections = MOST_CONNECTIONS;
      // Behind a proxy on the same machine nobody else needs to reach it.
      await listening(door.listener, port, host ?? (origin !== undefined && !certificate ? '127.0.0.1' : undefined));
      this.door = door;
      this.told = JSON.stringify(this.state());
    } catch (error) {
      // The machine itself is answered all the same.
      const { syscall, code, message } = error as NodeJS.ErrnoException;
      this.problem = syscall === 'listen' ? cannotListen(port, code) : cannotShare(code ?? message);
      door?.cutOff();
      this.forgetName();
    }
  }

  /** Has the network know the name; anew where the addresses it stands for are others. */
  private async tellName(): Promise<void> {
    const { origin, announced = true } = this.options;
    const addresses = this.addresses().join();
    if (origin !== undefined || !announced || addresses === this.announcedFor) return;
    this.forgetName();
    this.announcedFor = addresses;
    this.announced = await announce(DEFAULT_NAME, () => this.addresses());
  }

  private forgetName(): void {
    this.announced?.stop();
    this.announced = null;
    this.announcedFor = '';
  }

  private async makeDoor(): Promise<Door> {
    const { origin, certificate } = this.options;
    const app: RequestListener = (request, response) => this.app!(request, response);
    if (origin !== undefined && !certificate) {
      const plain = kept(http.createServer(app));
      return { listener: plain, secure: null, cutOff: () => plain.closeAllConnections() };
    }
    const pair = certificate ? await ownPair(certificate) : await this.identified();
    if (certificate) this.ownEnds = endOf(pair.cert);
    const secure = kept(https.createServer({ ...pair, minVersion: 'TLSv1.2', handshakeTimeout: HANDSHAKE_MS }, app));
    const plain = plainServer({
      isOurs: this.isOurs,
      port: () => this.port,
      authority: () =>
        this.identity && { certificate: this.identity.authority, fingerprint: this.identity.fingerprint },
    });
    // A handshake that fails is told by the device, which does not trust the certificate yet.
    secure.on('tlsClientError', (_error, socket) => socket.destroy());
    return { ...onePort(secure, plain), secure };
  }

  private async identified(): Promise<{ cert: string; key: string }> {
    this.identity = await identityFor(this.options.folder, [
      ...this.addresses(),
      ...this.names(),
      'localhost',
      '127.0.0.1',
    ]);
    return { cert: `${this.identity.certificate}\n${this.identity.authority}`, key: this.identity.key };
  }

  /** Follows this machine: a network that comes, other addresses, a certificate that nears its end. */
  async look(): Promise<void> {
    if (this.wanted && !this.door) {
      const state = await this.on();
      if (state.on) this.options.onChange?.(state);
      return;
    }
    const { secure } = this.door ?? {};
    if (!secure) return;
    const { certificate } = this.options;
    try {
      const pair = certificate ? await ownPair(certificate) : await this.identified();
      if (certificate) this.ownEnds = endOf(pair.cert);
      secure.setSecureContext({ ...pair, minVersion: 'TLSv1.2' });
      await this.tellName();
    } catch {
      // Unreadable for the moment, as while it is replaced: the one in use stays.
      return;
    }
    const now = JSON.stringify(this.state());
    if (now !== this.told) this.options.onChange?.(this.state());
    this.told = now;
  }

  private async close(): Promise<void> {
    const { door } = this;
    this.forgetName();
    this.door = null;
    this.problem = null;
    if (!door) return;
    const closed = new Promise((resolve) => door.listener.close(resolve));
    door.cutOff();
    await closed;
  }
}

/** Longer than a pause between two taps, as at the machine. */
function kept<T extends http.Server | https.Server>(server: T): T {
  server.keepAliveTimeout = 75_000;
  return server;
}

const ownPair = async ({ certificateFile, keyFile }: { certificateFile: string; keyFile: string }) => {
  const [cert, key] = await Promise.all([readFile(certificateFile, 'utf8'), readFile(keyFile, 'utf8')]);
  fingerprintOf(cert);
  return { cert, key };
};

const endOf = (pem: string): Date => new Date(new X509(pem).validTo);

function listening(server: Server, port: number, host: string | undefined): Promise<void> {
  return new Promise((done, fail) => {
    server.once('error', fail);
    server.listen(port, host, () => {
      server.off('error', fail);
      done();
    });
  });
}
