import { describe, expect, it } from '@jest/globals';
import { AUDIT_SENTENCES } from '../../core/studio/audit-sentences';
import { ROUTES } from '../http/routes';

/** What changes nothing that anybody asks about later: viewers’ and browsers’ own doings, and steps on the way to what is noted. */
const NOT_NOTED = [
  /^POST \/api\/v1\/(session|joining|screenings|proofs|uploads)/,
  /^PATCH \/api\/v1\/proofs/,
  /series\/\[series\]\/rows$/,
  /\/(timeline|trial|missing|ratings)$/,
  /asked$/,
  /\/hall$/,
  /\/(loans|trials|cleaned|evened|still|takes|samples|band)$/,
  /\/pieces\/\[piece\]$/,
  /^DELETE \/api\/v1\/(session$|shows\/\[show\]\/(folder|takes))/,
  /^POST \/api\/v1\/films\/\[film\]\/(cancel|again|next)$/,
  /publications\/\[publication\]\/(cancel|again)$/,
];

describe('who did what', () => {
  it.each(Object.keys(ROUTES).filter((name) => !name.startsWith('GET ')))('notes %s, or knows why not', (name) => {
    const isLeftOut = NOT_NOTED.some((pattern) => pattern.test(name));
    expect([name, name in AUDIT_SENTENCES]).toEqual([name, !isLeftOut]);
  });
  it('has sentences for nothing that is not there', () => {
    const routes = Object.keys(AUDIT_SENTENCES).filter((name) => name.includes(' /api/'));
    expect(routes.filter((name) => !(name in ROUTES))).toEqual([]);
  });
});
