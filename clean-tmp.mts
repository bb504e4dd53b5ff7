import { readFileSync, writeFileSync } from 'node:fs';
import { voiceCleaning } from './src/core/sound/voice/clean-voice';
import { GENTLE, THOROUGH } from './src/core/sound/voice/cleaning';
const [, , inp, out, mode] = process.argv;
const b = readFileSync(inp!); const n = (b.length - 44) >> 1; const x = new Float32Array(n);
for (let i = 0; i < n; i++) x[i] = b.readInt16LE(44 + 2 * i) / 32768;
const how = { ...(mode === 'thorough' ? THOROUGH : mode === 'noise' ? {lowCut: true as const, clicks: true as const, noise: .85} : GENTLE), room: { fromMs: 0, toMs: 1400 } };
const t0 = performance.now();
const c = voiceCleaning(48000, how);
const blocks: Float32Array[] = []; for (let i = 0; i < n; i += 9600) blocks.push(x.subarray(i, i + 9600));
for (const k of blocks) c.learn(k);
const st = c.mend(); const mended: Float32Array[] = blocks.map((k) => st.push(k)); mended.push(st.finish());
const lv = c.level(); const res = mended.map((k) => lv(k));
const total = res.reduce((s, k) => s + k.length, 0);
const o = Buffer.alloc(44 + 2 * total); b.copy(o, 0, 0, 44); let at = 44;
for (const k of res) for (const v of k) { o.writeInt16LE(Math.max(-32768, Math.min(32767, Math.round(v * 32767))), at); at += 2; }
writeFileSync(out!, o);
console.log(total === n, ((n / 48000) * 1000 / (performance.now() - t0)).toFixed(1) + 'x', JSON.stringify(c.outcome()).slice(0, 300));
