import { heardHz, type Lesson } from './make-noise';

/** A noise that is hidden, and the ones it is to be told from. */
export interface PracticeRound {
  hidden: Lesson;
  choices: readonly Lesson[];
}

/** Noises that one chooses among. */
const CHOICES = 4;
/** Of one kind, rates nearer together than this are told apart by no ear, as a part of the rate. */
const ALIKE = 0.15;

/** A round of blind practice; `random` gives numbers from 0 to 1. Null without noises. */
export function practiceRound(lessons: readonly Lesson[], random: () => number): PracticeRound | null {
  const mixed = lessons
    .map((lesson) => ({ lesson, at: random() }))
    .sort((a, b) => a.at - b.at)
    .map(({ lesson }) => lesson);
  const choices: Lesson[] = [];
  for (const candidate of mixed) {
    const alike = choices.some(
      (other) => candidate.kind === other.kind && Math.abs(heardHz(candidate) / heardHz(other) - 1) < ALIKE,
    );
    if (!alike && choices.length < CHOICES) choices.push(candidate);
  }
  const hidden = choices[Math.floor(random() * choices.length)] ?? choices[0];
  return hidden ? { hidden, choices } : null;
}
