/** What one point of a sensor saw, of 65,535. */
type Light = (x: number, y: number, filter: 'red' | 'green' | 'blue') => number;

/** Red at the left third, blue beside it, brighter downwards; no two points are quite alike, as in no sensor. */
export const redThenBlue =
  (widthPx: number, heightPx: number): Light =>
  (x, y, filter) => {
    const isRed = x < widthPx / 3;
    const lit = filter === (isRed ? 'red' : 'blue') ? 24_000 : 3000;
    return lit * (0.6 + (0.8 * y) / heightPx) + ((x * 7919 + y * 104_729) % 997);
  };

const BYTE = 1;
const ASCII = 2;
const SHORT = 3;
const LONG = 4;
const RATIONAL = 5;
const SIGNED_RATIONAL = 10;

/** A DNG (1.4) with what a sensor behind filters of red, green, green and blue saw, not packed, and nothing else: no finished picture. */
export function sensorRaw(widthPx: number, heightPx: number, light: Light, orientation = 1): Buffer {
  const sensor = Buffer.alloc(2 * widthPx * heightPx);
  for (let y = 0; y < heightPx; y += 1)
    for (let x = 0; x < widthPx; x += 1) {
      const filter = y % 2 === 0 ? (x % 2 === 0 ? 'red' : 'green') : x % 2 === 0 ? 'green' : 'blue';
      sensor.writeUInt16LE(Math.min(65_535, Math.round(light(x, y, filter))), 2 * (y * widthPx + x));
    }
  const text = (value: string) => ({
    type: ASCII,
    count: value.length + 1,
    bytes: Buffer.from(`${value}\0`, 'latin1'),
  });
  const shorts = (...values: number[]) => ({
    type: SHORT,
    count: values.length,
    bytes: Buffer.from(Uint16Array.from(values).buffer),
  });
  const long = (value: number) => ({ type: LONG, count: 1, bytes: Buffer.from(Uint32Array.of(value).buffer) });
  const bytes = (...values: number[]) => ({ type: BYTE, count: values.length, bytes: Buffer.from(values) });
  const ratios = (type: number, ...values: number[]) => ({
    type,
    count: values.length,
    bytes: Buffer.from(Int32Array.from(values.flatMap((value) => [Math.round(value * 10_000), 10_000])).buffer),
  });
  const SENSOR_AT = 1024;
  const entries = [
    [0x00fe, long(0)],
    [0x0100, long(widthPx)],
    [0x0101, long(heightPx)],
    [0x0102, shorts(16)],
    [0x0103, shorts(1)],
    [0x0106, shorts(32_803)],
    [0x010f, text('Orrery')],
    [0x0110, text('Orrery F2')],
    [0x0111, long(SENSOR_AT)],
    [0x0112, shorts(orientation)],
    [0x0115, shorts(1)],
    [0x0116, long(heightPx)],
    [0x0117, long(sensor.length)],
    [0x0132, text('2031:06:14 21:08:33')],
    [0x828d, shorts(2, 2)],
    [0x828e, bytes(0, 1, 1, 2)],
    [0xc612, bytes(1, 4, 0, 0)],
    [0xc614, text('Orrery F2')],
    // From XYZ to the camera's colours: those of sRGB.
    [0xc621, ratios(SIGNED_RATIONAL, 3.2406, -1.5372, -0.4986, -0.9689, 1.8758, 0.0415, 0.0557, -0.204, 1.057)],
    [0xc628, ratios(RATIONAL, 1, 1, 1)],
    [0xc65a, shorts(21)],
  ] as const;
  const head = Buffer.alloc(SENSOR_AT);
  head.write('II*\0', 0, 'latin1');
  head.writeUInt32LE(8, 4);
  head.writeUInt16LE(entries.length, 8);
  let dataAt = 10 + 12 * entries.length + 4;
  entries.forEach(([tag, value], index) => {
    const at = 10 + 12 * index;
    head.writeUInt16LE(tag, at);
    head.writeUInt16LE(value.type, at + 2);
    head.writeUInt32LE(value.count, at + 4);
    if (value.bytes.length <= 4) return void value.bytes.copy(head, at + 8);
    head.writeUInt32LE(dataAt, at + 8);
    value.bytes.copy(head, dataAt);
    dataAt += value.bytes.length + (value.bytes.length % 2);
  });
  return Buffer.concat([head, sensor]);
}
