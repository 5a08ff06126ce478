/*
 * The archive of a shop: a ZIP that any program opens.
 *   shop.json          { "format": "emery-shop", "version": 1, "sums", name, unit, hourRate, limits,
 *                        bands, pulleys, parts }
 *   vehicles.jsonl     one vehicle a line, those without drives and the deleted ones too
 *   belts.csv          the list of belts, as the shop's own "Save as CSV", with the number of each row
 *   drives/*.emery.json   drive files; `vehicle` and `record` beside the drive's own fields say whose it is,
 *                      its number and date, and when it was deleted
 *   jobs/*.json        jobs, those in hand and those signed off, with all that happened at them
 *   pictures/*.jpg     named by the SHA-256 of their bytes, as drives name them
 *   SHA256SUMS         the SHA-256 of every other entry, a line each, as `sha256sum -c` reads it
 */
export const SHOP_FILE = 'shop.json';
export const VEHICLES_FILE = 'vehicles.jsonl';
export const BELTS_FILE = 'belts.csv';
export const JOB_FILE = /^jobs\/[0-9a-f-]{36}\.json$/;
export const PICTURE_FILE = /^pictures\/([0-9a-f]{64})\.jpg$/;
export const SUMS_FILE = 'SHA256SUMS';
