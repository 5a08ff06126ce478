import { randomLcg } from 'd3-random';

/**
 * Normal deviates with mean 0 and standard deviation 1, by Box and Muller; the same for the same seed, a whole number.
 */
export function normals(seed: number): () => number {
  return deviates(seed).normal;
}

/** The same, with even deviates between 0 and 1 out of the same generator. */
export function deviates(seed: number): { normal: () => number; uniform: () => number } {
  const lcg = randomLcg(seed);
  // In the middle of the generator's steps, so that its logarithm has an end.
  const uniform = () => lcg() + 0.5 / 2 ** 32;
  return { uniform, normal: byBoxAndMuller(uniform) };
}

function byBoxAndMuller(uniform: () => number): () => number {
  let spare: number | null = null;
  return () => {
    if (spare !== null) {
      const value = spare;
      spare = null;
      return value;
    }
    const radius = Math.sqrt(-2 * Math.log(uniform()));
    const angle = 2 * Math.PI * uniform();
    spare = radius * Math.sin(angle);
    return radius * Math.cos(angle);
  };
}
