import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { fingerprint } from '../fingerprint.testing';
import { EDIT_KINDS, edits, HELD_TOGETHER } from './dealt-edits.testing';
import { applyEdit } from './edit';
import { editSentence } from './edit-sentence';
import { touched } from './touched';

/** How many of each kind are dealt, and how many share a fingerprint. */
const DEALT = 96;
const TOGETHER = 16;

// What people made is edited, undone and told of for years: an edit that is on record must go on doing what it did. Where it is meant to do something else,
// the snapshot is written anew and the change is seen in it.
describe('an edit that was on record does what it did', () => {
  it.each(EDIT_KINDS)('%s', (kind) => {
    const outcomes = fc.sample(edits(kind), { seed: 1, numRuns: DEALT }).map((edit) => {
      const result = applyEdit(HELD_TOGETHER, edit);
      return {
        accepted: result.ok,
        is: [editSentence(edit), touched(edit), result.ok ? [result.show, result.inverse] : result],
      };
    });
    const prints = Array.from({ length: DEALT / TOGETHER }, (_, at) =>
      fingerprint(outcomes.slice(at * TOGETHER, (at + 1) * TOGETHER).map(({ is }) => is)),
    );
    expect({ accepted: outcomes.filter(({ accepted }) => accepted).length, prints }).toMatchSnapshot();
  });
});
