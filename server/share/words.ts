export const ADDRESS_UNKNOWN =
  'Emery does not answer at this address. The page Devices at the machine shows the present ones.\n';

export const NO_NETWORK = 'This machine has no network address. Connect it to the network of the shop.';
export const cannotListen = (port: number, code: string | undefined): string =>
  code === 'EADDRINUSE'
    ? `Port ${port} is taken by another program. Start Emery with another one: npm start -- --share-port ${port + 1}`
    : `Emery cannot listen on port ${port} (${code ?? 'unknown reason'}).`;

export const cannotShare = (why: string): string => `The certificate cannot be read or written (${why}).`;

export interface PlainPage {
  address: string;
  fingerprint: string | null;
  /** The time of this machine, ms. */
  now: number;
}

const escaped = (text: string) => text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);

/** The page that a device meets without encryption: how to trust the certificate, and what works without. */
export const plainPage = ({ address, fingerprint, now }: PlainPage): string => `<!doctype html>
<html lang="en" data-now="${now}">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Emery: connect this device</title>
<style>
  body { margin: 0; padding: 20px; background: #dde2e1; color: #172124; font: 17px/1.45 system-ui, sans-serif; }
  main { max-width: 620px; margin: 0 auto; padding: 20px; background: #fbfcfb; border: 1px solid #c3cbcb; border-radius: 3px; }
  h1 { margin: 0 0 8px; font-size: 24px; }
  li { margin: 10px 0; }
  a.go { display: block; padding: 14px; border-radius: 3px; background: #1f5a4a; color: #fbfcfb; text-align: center; text-decoration: none; font-weight: 600; }
  a.go.second { background: #fbfcfb; color: #1f5a4a; border: 1px solid #1f5a4a; }
  code { font: 14px/1.5 ui-monospace, monospace; }
  #clock { padding: 10px; border-left: 4px solid #9a6a0b; background: #f4ead6; }
  .quiet { color: #55656a; font-size: 15px; }
</style>
<main>
  <h1>Connect this device to Emery</h1>
  <p id="clock" hidden></p>
  ${
    fingerprint === null
      ? '<p>This shop has its own certificate: nothing needs to be installed.</p>'
      : `<p>Once for each device, so that it trusts the certificate of this shop:</p>
  <ol>
    <li><a class="go" href="/emery-authority.crt" download>Download the certificate</a></li>
    <li><strong>iPhone, iPad:</strong> Settings, Profile Downloaded, Install; then General, About, Certificate Trust
      Settings: switch it on. <strong>Android:</strong> Settings, search for “CA certificate”, install the file.
      <strong>Computer:</strong> open the file, and trust it for websites.</li>
    <li>Compare the fingerprint with the one that the page Devices shows at the machine:<br><code>${escaped(fingerprint).replaceAll(':', ':<wbr>')}</code></li>
  </ol>`
  }
  <p><a class="go${fingerprint === null ? '' : ' second'}" href="${escaped(address)}">Open Emery</a></p>
  <p class="quiet">${
    fingerprint === null
      ? ''
      : 'Without it the browser warns once; continue past the warning, and everything works but offline. '
  }The certificate is good for this shop’s network alone. Install it only if somebody of the shop showed you this page.</p>
</main>
<script src="/clock.js"></script>
</html>
`;
