import { networkAddresses } from '../share/addresses';

/** The network's addresses of this machine; of one without a network its own. */
export const reached = (): string[] => {
  const addresses = networkAddresses();
  return addresses.length > 0 ? addresses : ['127.0.0.1'];
};
