declare const brand: unique symbol;
type Branded<Name extends string> = string & { readonly [brand]: Name };

export type ShowId = Branded<'ShowId'>;
export type SlideId = Branded<'SlideId'>;
export type LayerId = Branded<'LayerId'>;
export type CueId = Branded<'CueId'>;
/** A hash of a file's content as 64 lower-case hexadecimal digits. */
export type AssetId = Branded<'AssetId'>;

export const showId = (text: string): ShowId => text as ShowId;
export const slideId = (text: string): SlideId => text as SlideId;
export const layerId = (text: string): LayerId => text as LayerId;
export const cueId = (text: string): CueId => text as CueId;
export const assetId = (text: string): AssetId => text as AssetId;
