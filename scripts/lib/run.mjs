import { spawn } from 'node:child_process';

/** Something the person at the terminal can put right; shown as one line without a trace. */
export class SetupProblem extends Error {}

/** Runs a command to its end. Resolves with its exit code and, where `quiet`, what it printed. */
export function run(command, args, { quiet = false, ...options } = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      stdio: quiet ? ['ignore', 'pipe', 'pipe'] : ['ignore', 'inherit', 'inherit'],
      ...options,
    });
    let output = '';
    child.stdout?.on('data', (data) => (output += data));
    child.stderr?.on('data', (data) => (output += data));
    child.on('error', (error) => resolve({ code: 127, output: error.message }));
    child.on('close', (code, signal) => resolve({ code: code ?? 1, signal, output }));
  });
}

/**
 * Says what a long step is doing, and how long it took; on standard error, so that a command's own output stays clean.
 */
export async function step(title, work) {
  const started = Date.now();
  process.stderr.write(`${title} …\n`);
  const ticker = setInterval(
    () => process.stderr.write(`  still at it, ${Math.round((Date.now() - started) / 1000)} s\n`),
    15_000,
  );
  try {
    return await work();
  } finally {
    clearInterval(ticker);
    process.stderr.write(`  done in ${((Date.now() - started) / 1000).toFixed(1)} s\n`);
  }
}

/** Runs a script's main function; a SetupProblem ends it with one line and exit code 1. */
export async function main(work) {
  try {
    await work();
  } catch (error) {
    if (!(error instanceof SetupProblem)) throw error;
    process.stderr.write(`emery: ${error.message}\n`);
    process.exitCode = 1;
  }
}
