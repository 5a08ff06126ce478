import { pictureAddress } from '../views/picture/address';

/** A picture taken at a job, in small; a tap shows it whole. */
export function JobPicture({ hash, of: subject }: { hash: string; of: string }) {
  return (
    <a href={pictureAddress(hash)}>
      <img src={pictureAddress(hash)} alt={`Of ${subject}`} loading="lazy" />
    </a>
  );
}
