import sharp from 'sharp';

/** A RAW file as a maker's camera writes it, as far as readers of previews care. */
export interface MadeRaw {
  readonly maker: 'tiff-little' | 'tiff-big' | 'orf' | 'rw2' | 'raf' | 'cr3' | 'x3f';
  /** Finished pictures in it, in this order; each `width × height`. */
  readonly previews: readonly (readonly [number, number])[];
  /** 1…8, in the file's own notes. */
  readonly orientation?: number;
  readonly takenAt?: string;
}

/** Left third red, the rest blue: shows how it is turned. */
export async function redAtLeft(widthPx: number, heightPx: number): Promise<Buffer> {
  const red = await sharp({
    create: { width: Math.round(widthPx / 3), height: heightPx, channels: 3, background: '#d02020' },
  })
    .png()
    .toBuffer();
  return sharp({ create: { width: widthPx, height: heightPx, channels: 3, background: '#2030c0' } })
    .composite([{ input: red, left: 0, top: 0 }])
    .jpeg({ quality: 90 })
    .toBuffer();
}

/** What a sensor saw, packed as lossless JPEG (SOF3): it begins like a picture and is none. */
function sensorData(): Buffer {
  const noise = Buffer.alloc(60_000);
  let state = 7;
  for (let at = 0; at < noise.length; at += 1) {
    state = (state * 1_103_515_245 + 12_345) & 0x7fffffff;
    noise[at] = state >> 16;
  }
  return Buffer.concat([
    Buffer.from('ffd8ffc3000e0e177016800200110011000000', 'hex'),
    noise,
    Buffer.from('ffd9', 'hex'),
  ]);
}

/** A TIFF directory with a camera's notes, followed by whatever comes; offsets count from its beginning. */
function tiff({ maker, orientation = 1, takenAt = '2031:06:14 21:08:33' }: MadeRaw, dng: boolean): Buffer {
  const little = maker !== 'tiff-big';
  const bytes = Buffer.alloc(400);
  const u16 = (value: number, at: number) => (little ? bytes.writeUInt16LE(value, at) : bytes.writeUInt16BE(value, at));
  const u32 = (value: number, at: number) => (little ? bytes.writeUInt32LE(value, at) : bytes.writeUInt32BE(value, at));
  const magic = { orf: 'IIRO', rw2: 'IIU\0' }[maker as string] ?? (little ? 'II*\0' : 'MM\0*');
  bytes.write(magic, 0, 'latin1');
  u32(8, 4);
  let dataAt = 250;
  const text = (value: string) => {
    bytes.write(`${value}\0`, dataAt, 'latin1');
    dataAt += value.length + 1;
    return dataAt - value.length - 1;
  };
  const entries: [number, number, number, number][] = [
    [0x010f, 2, 7, text('Orrery')],
    [0x0110, 2, 10, text('Orrery F2')],
    [0x0112, 3, 1, orientation],
    [0x8769, 4, 1, 200],
    ...(dng ? ([[0xc612, 1, 4, 0x01040000]] as [number, number, number, number][]) : []),
  ];
  const directory = (at: number, list: typeof entries) => {
    u16(list.length, at);
    list.forEach(([tag, type, count, value], index) => {
      const entry = at + 2 + 12 * index;
      u16(tag, entry);
      u16(type, entry + 2);
      u32(count, entry + 4);
      if (type === 3) u16(value, entry + 8);
      else u32(value, entry + 8);
    });
  };
  directory(8, entries);
  directory(200, [[0x9003, 2, 20, text(takenAt)]]);
  return bytes;
}

const HEADS: Readonly<Record<MadeRaw['maker'], (raw: MadeRaw) => Buffer>> = {
  'tiff-little': (raw) => tiff(raw, true),
  'tiff-big': (raw) => tiff(raw, true),
  orf: (raw) => tiff(raw, false),
  rw2: (raw) => tiff(raw, false),
  raf: () => Buffer.from('FUJIFILMCCD-RAW 0201'.padEnd(160, '\0'), 'latin1'),
  x3f: () => Buffer.from('FOVb'.padEnd(264, '\0'), 'latin1'),
  cr3: (raw) => {
    const box = (name: string, content: Buffer) => {
      const size = Buffer.alloc(4);
      size.writeUInt32BE(8 + content.length);
      return Buffer.concat([size, Buffer.from(name, 'latin1'), content]);
    };
    return Buffer.concat([box('ftyp', Buffer.from('crx \0\0\0\x01crx isom', 'latin1')), box('CMT1', tiff(raw, false))]);
  },
};

export async function madeRaw(raw: MadeRaw): Promise<Buffer> {
  const previews = await Promise.all(raw.previews.map(([widthPx, heightPx]) => redAtLeft(widthPx, heightPx)));
  return Buffer.concat([HEADS[raw.maker](raw), ...previews, sensorData()]);
}
