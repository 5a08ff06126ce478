import { access } from './access/resource';
import { drives } from './drives/resource';
import { files } from './files/resource';
import { health } from './health/resource';
import { parts } from './parts/resource';
import { keep } from './keep/resource';
import { jobs } from './jobs/resource';
import { photos } from './photos/resource';
import { records } from './records/resource';
import { live } from './live/resource';
import type { Resource } from './resource';
import { shop } from './shop/resource';
import { bands, pulleys } from './speeds/resource';
import { stock } from './stock/resource';
import { vehicles } from './vehicles/resource';

/** All that the API serves. The one without an address of its own comes last. */
export const RESOURCES: readonly Resource[] = [
  health,
  shop,
  vehicles,
  drives,
  photos,
  stock,
  bands,
  pulleys,
  parts,
  records,
  jobs,
  live,
  keep,
  access,
  files,
];
