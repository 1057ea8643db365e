#!/usr/bin/env node
import { CommanderError } from 'commander';
import colors from 'picocolors';
import { IsopticError, messageOf } from '../core/errors.js';
import { keepCompiled } from './keep-compiled.js';
import { optimiseLate } from './optimise-late.js';
import { program } from './program.js';

/** Status of a defect of Isoptic itself, as for wrong usage: the run did not happen. */
const DEFECT_STATUS = 2;

// A reader that closes the pipe early (`| head`) is no error.
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code === 'EPIPE') process.exit(process.exitCode ?? 0);
});

keepCompiled();
optimiseLate();
try {
  await (await program(process.argv.slice(2))).parseAsync();
} catch (error) {
  process.exitCode = report(error);
}

function report(error: unknown): number {
  // Commander has printed its own message already.
  if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2;
  const verbose = process.argv.includes('--verbose');
  const stack = verbose && error instanceof Error ? `\n${error.stack ?? ''}` : '';
  if (error instanceof IsopticError) {
    const hint = error.hint === '' ? '' : `\n${error.hint}`;
    process.stderr.write(`${colors.red('isoptic:')} ${error.message}${hint}${stack}\n`);
    return error.exitStatus;
  }
  const advice = verbose ? '' : ' Run again with --verbose to see where, and please report it.';
  process.stderr.write(
    `${colors.red('isoptic:')} unexpected failure: ${messageOf(error)}.${advice}${stack}\n`,
  );
  return DEFECT_STATUS;
}
