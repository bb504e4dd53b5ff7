import { describe, expect, it } from '@jest/globals';
import { rawTwins, type NamedFile } from './raw-twins';

const file = (fileName: string, takenAt: string | null, raw = false): NamedFile => ({
  fileName,
  facts: {
    kind: 'picture',
    widthPx: 6000,
    heightPx: 4000,
    hasTransparency: false,
    takenAt,
    camera: null,
    brightness: 0.5,
    ...(raw && { raw: true }),
  },
});
const AT = '2031-06-14T21:08:33';

describe('RAW and finished pictures of one press', () => {
  it('are pairs, whatever the case of their names', () => {
    const [raw, jpeg] = [file('DSC_0042.NEF', AT, true), file('dsc_0042.jpg', AT)];
    expect([...rawTwins([raw, jpeg, file('DSC_0043.jpg', AT)])]).toEqual([[raw, jpeg]]);
  });
  it.each<[string, NamedFile[]]>([
    ['of other names', [file('DSC_0042.NEF', AT, true), file('DSC_0043.JPG', AT)]],
    ['of one name and another moment', [file('DSC_0042.NEF', AT, true), file('DSC_0042.JPG', '2032-01-01T08:00:00')]],
    ['that are both RAW', [file('DSC_0042.NEF', AT, true), file('DSC_0042.DNG', AT, true)]],
    ['that are both finished', [file('DSC_0042.JPG', AT), file('DSC_0042.PNG', AT)]],
    ['of which one is not looked at yet', [file('a.NEF', AT, true), { fileName: 'a.jpg', facts: null }]],
  ])('are none %s', (_name, files) => {
    expect(rawTwins(files).size).toBe(0);
  });
});
