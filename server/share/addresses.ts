import { hostname, networkInterfaces } from 'node:os';

/** A name for this machine that the network is told. */
export const DEFAULT_NAME = 'emery.local';

/** Kinds of interface that lead to programs on this machine and to no phone. */
const INSIDE = /^(docker|br-|veth|virbr|ifb|lo)/;

/** The addresses at which others reach this machine: of version 4 first, without those of this machine alone. */
export function networkAddresses(): string[] {
  const all = Object.entries(networkInterfaces())
    .filter(([name]) => !INSIDE.test(name))
    .flatMap(([, addresses]) => addresses ?? [])
    .filter(({ internal, address }) => !internal && !/^fe80:/i.test(address));
  const family = (wanted: string) => all.filter((found) => found.family === wanted).map(({ address }) => address);
  return [...new Set([...family('IPv4').sort(), ...family('IPv6').sort()])];
}

/** This machine's own name, where it is one that can be in a certificate. */
export function machineNames(): string[] {
  const own = hostname().toLowerCase();
  if (!/^[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?(\.[a-z0-9-]+)*$/.test(own) || own === 'localhost') return [];
  return own.includes('.') ? [own] : [own, `${own}.local`];
}

export const isIPv6 = (host: string): boolean => host.includes(':');
/** A host as it stands in an address. */
export const inAddress = (host: string): string => (isIPv6(host) ? `[${host}]` : host);

/** A host and its port out of a `Host` header; null where it is none. */
export function readHost(header: string): { host: string; port: number | null } | null {
  const found = /^(?:\[([0-9a-f:.]+)\]|([a-z0-9.-]+))(?::(\d{1,5}))?$/i.exec(header);
  if (!found) return null;
  const [, six, name, port] = found;
  return { host: (six ?? name!).toLowerCase(), port: port === undefined ? null : Number(port) };
}
