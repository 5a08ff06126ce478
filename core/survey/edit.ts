import { type DiameterReading, type Drive, itemsOf, putItem, removeItem } from '../drive';
import { withReadDiameters } from './diameters';

/**
 * Adds a diameter reading, or lays it over the one of its id; the drawn diameter follows what the readings come to.
 */
export function putDiameter(drive: Drive, reading: DiameterReading): Drive {
  return withReadDiameters(putItem(drive, 'survey.diameters', reading), reading.pulley);
}

/** Takes a diameter reading out; the drawn diameter follows the others, or stays where it was the last. */
export function removeDiameter(drive: Drive, id: string): Drive {
  const pulley = itemsOf(drive, 'survey.diameters').find((reading) => reading.id === id)?.pulley;
  const less = removeItem(drive, 'survey.diameters', id);
  return pulley === undefined ? less : withReadDiameters(less, pulley);
}
