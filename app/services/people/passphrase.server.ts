import { ZxcvbnFactory } from "@zxcvbn-ts/core";
import { adjacencyGraphs, dictionary } from "@zxcvbn-ts/language-common";
import { dictionary as english } from "@zxcvbn-ts/language-en";
import { LEAST_PASSPHRASE } from "./auth.server";

/** Guesses that somebody who knows the usual lists would need, as a power of ten: fewer is refused. */
const LEAST_GUESSES = 10;

let guesser: ZxcvbnFactory | null = null;

/**
 * What is wrong with a passphrase that somebody wants to take, as a sentence; null when nothing is. It is held against lists of
 * words, names and passphrases that became known, which are on this machine.
 *
 * @param name whose it is
 */
export function passphraseProblem(passphrase: string, name: string): string | null {
  if (passphrase.length < LEAST_PASSPHRASE)
    return `Take ${LEAST_PASSPHRASE} characters or more: a few words make a good one.`;
  if (name.trim().length > 3 && passphrase.toLowerCase().includes(name.trim().toLowerCase()))
    return "It holds your name: take other words.";
  // Its lists are long: they are read when the first passphrase is held against them.
  guesser ??= new ZxcvbnFactory({ dictionary: { ...dictionary, ...english }, graphs: adjacencyGraphs });
  const { guessesLog10 } = guesser.check(passphrase, [name, "barometron", "e-bike"]);
  if (guessesLog10 < LEAST_GUESSES)
    return "It is on lists of passphrases, or soon guessed from them: take four words that have nothing to do with each other.";
  return null;
}
