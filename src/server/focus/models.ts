import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { projectFolder } from '../paths';

/** A network with its weights, ready to run. */
export interface Model {
  /** @param input values of a square picture, three a pixel @param output its name; all there are otherwise */
  run(input: Float32Array, sidePx: number, output?: string): Promise<Float32Array[]>;
}

interface Description {
  readonly modelTopology: object;
  readonly format: string;
  readonly weightsManifest: readonly { readonly weights: readonly object[] }[];
}

const loaded = new Map<string, Promise<Model>>();

/** Loads a network once. Nothing is fetched: weights and WebAssembly lie among the installed packages. */
export function loadModel(name: 'blazeface' | 'centernet' | 'facemesh' | 'iris'): Promise<Model> {
  let model = loaded.get(name);
  if (!model) loaded.set(name, (model = load(name)));
  return model;
}

async function load(name: string): Promise<Model> {
  const packages = path.join(projectFolder(), 'node_modules');
  const [tf, { loadGraphModel }, { setWasmPaths }] = await Promise.all([
    import('@tensorflow/tfjs-core'),
    import('@tensorflow/tfjs-converter'),
    import('@tensorflow/tfjs-backend-wasm'),
  ]);
  setWasmPaths(`${path.join(packages, '@tensorflow/tfjs-backend-wasm/wasm-out')}/`);
  await tf.setBackend('wasm');
  const base = path.join(packages, '@vladmandic/human/models', name);
  const description = JSON.parse(await readFile(`${base}.json`, 'utf8')) as Description;
  const weights = await readFile(`${base}.bin`);
  const graph = await loadGraphModel({
    load: () =>
      Promise.resolve({
        modelTopology: description.modelTopology,
        weightSpecs: description.weightsManifest.flatMap((group) => group.weights) as never,
        weightData: weights.buffer.slice(weights.byteOffset, weights.byteOffset + weights.byteLength),
        format: description.format,
      }),
  });
  return {
    async run(input, sidePx, output) {
      const tensor = tf.tensor4d(input, [1, sidePx, sidePx, 3]);
      const made = graph.execute(tensor, output);
      const tensors = Array.isArray(made) ? made : [made];
      try {
        return await Promise.all(tensors.map(async (one) => (await one.data()) as Float32Array));
      } finally {
        tf.dispose([tensor, ...tensors]);
      }
    },
  };
}
