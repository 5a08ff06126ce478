import type { Resource } from '../resource';
import { Speeds1795700000000 } from './1795700000000-speeds';
import { PulleyPieces1796200000000 } from './1796200000000-pulley-pieces';
import { PulleyEntity, SpeedBandEntity } from './entity';
import { bandRoutes, pulleyRoutes } from './routes';

export const bands: Resource = {
  path: '/bands',
  routes: bandRoutes,
  entities: [SpeedBandEntity],
  migrations: [Speeds1795700000000],
};

export const pulleys: Resource = {
  path: '/pulleys',
  routes: pulleyRoutes,
  entities: [PulleyEntity],
  migrations: [PulleyPieces1796200000000],
};
