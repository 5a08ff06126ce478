import type { ReactNode } from 'react';
import { lazyPart } from '../../parts/lazy-part';
import { useEscape } from '../../ui/use-key';
import { useBench } from '../../state/bench';
import { pictureInHand } from './picture-in-hand';
import { useSurveying } from './SurveyProvider';
import { findPulley } from '@emery/core/drive';

const PictureView = lazyPart(
  'The picture',
  () => import('./PictureView'),
  <section className="front-view sheet" aria-label="Picture" aria-busy />,
);

/** The picture while rims are marked in it, else the drawing. */
export function SurveyFront({ wanted, children }: { wanted: boolean; children: ReactNode }) {
  const { drive } = useBench('drive');
  const { picture, setPicture } = useSurveying();
  const { marking } = picture;
  const photo = wanted && marking !== null && findPulley(drive, marking) ? pictureInHand(drive, picture) : null;
  const shown = photo !== null;
  useEscape(() => setPicture({ marking: null }), shown);
  return photo ? <PictureView key={photo.id} photo={photo} pulley={marking!} /> : children;
}
