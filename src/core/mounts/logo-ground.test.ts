import { describe, expect, it } from '@jest/globals';
import { screeningLook } from '../screening/screening-look';
import type { PictureFacts } from '../show/asset-facts';
import { readsBetterOn } from './logo-ground';
import { CLIP, picture } from './mounts.testing';

const logo = (more: Partial<PictureFacts>) => picture(1, { hasTransparency: true, ...more });

describe('a studio’s logo on its dark pages', () => {
  const { ground, letters } = screeningLook();
  it.each([
    ['reads better on a light plate when it is dark', true, logo({ colours: ['#203a28', '#101010'] })],
    ['reads better on one when only its mean is known, and dark', true, logo({ meanColour: '#1d2230' })],
    ['stays on the ground when it is light', false, logo({ colours: ['#d8a24a', '#f3efe6'] })],
    ['stays there when it brings a ground of its own', false, logo({ colours: ['#203a28'], hasTransparency: false })],
    ['stays there when nothing is known of its colours, or of it', false, logo({})],
    ['stays there when it is no picture', false, CLIP],
  ])('%s', (_what, better, known) => expect(readsBetterOn(letters, ground, known)).toBe(better));
});
