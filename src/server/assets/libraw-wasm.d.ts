declare module 'libraw-wasm/dist/libraw.js' {
  export interface RawMetadata {
    /** Of what the sensor saw, upright. */
    readonly width: number;
    readonly height: number;
    readonly raw_width: number;
    readonly raw_height: number;
    readonly camera_make: string;
    readonly camera_model: string;
    /** In mm; 0 when it is not known. */
    readonly focal_len: number;
    /** The camera's clock, as seconds since 1970 in UTC; 0 when it is not known. */
    readonly timestamp: number;
  }
  export interface DevelopedRaw {
    readonly width: number;
    readonly height: number;
    readonly colors: 1 | 3;
    /** Rows of `colors` bytes a pixel, in the module's own memory. */
    readonly data: Uint8Array;
  }
  export interface LibRaw {
    open(bytes: Uint8Array, settings: Readonly<Record<string, number | boolean>>): void;
    metadata(all: boolean): RawMetadata;
    imageData(): DevelopedRaw | undefined;
  }
  export default function make(options: {
    readonly wasmBinary: Uint8Array;
    print(line: string): void;
    printErr(line: string): void;
  }): Promise<{ readonly LibRaw: new () => LibRaw }>;
}
