import { moveUnderCrop, placeOnCrop, placeOnPicture, settledCrop, WHOLE_CROP, type Crop } from './crop';
import type { ClipFacts, FactsById, PictureFacts } from '../show/asset-facts';
import type { ShowEdit } from '../show/edit';
import { moveOf, type ClipLayer, type PictureLayer } from '../show/layer';
import type { SlideId } from '../show/ids';

/** Of what is cropped: pictures, and clips. */
type CroppedFacts = PictureFacts | ClipFacts;

/** The edit that crops pictures and clips anew; moves and red eyes stay where they are on the picture. Null when none of them can be cropped. */
export function cropEdit(
  pictures: readonly { readonly slideId: SlideId; readonly layer: PictureLayer | ClipLayer }[],
  facts: FactsById,
  cropOf: (layer: PictureLayer | ClipLayer, picture: CroppedFacts) => Crop | null,
): ShowEdit | null {
  const changed = pictures.flatMap(({ slideId, layer }) => {
    const picture = facts.get(layer.assetId);
    if (!picture || picture.kind !== layer.kind) return [];
    const wanted = cropOf(layer, picture);
    const crop = wanted && settledCrop(wanted, picture);
    return [{ slideId, layer, picture, crop, move: moveUnderCrop(moveOf(layer), layer.crop, crop, picture) }];
  });
  if (changed.length === 0) return null;
  const crops: ShowEdit = {
    kind: 'set-crops',
    crops: changed.map(({ slideId, layer, crop, move }) => ({ slideId, layerId: layer.id, crop, move })),
  };
  const lights = changed.flatMap(({ slideId, layer, picture, crop }) => {
    if (!layer.light?.redEyes) return [];
    const widthRatio = (layer.crop?.width ?? 1) / (crop?.width ?? 1);
    const redEyes = layer.light.redEyes.map((eye) => ({
      ...placeOnCrop(crop ?? WHOLE_CROP, placeOnPicture(layer.crop ?? WHOLE_CROP, eye, picture), picture),
      radius: eye.radius * widthRatio,
    }));
    return [
      {
        slideId,
        layerId: layer.id,
        light: { ...layer.light, redEyes: redEyes.filter(({ x, y }) => x >= 0 && x <= 1 && y >= 0 && y <= 1) },
      },
    ];
  });
  if (lights.length === 0) return crops;
  return {
    kind: 'together',
    name: changed.length === 1 ? 'crop the picture' : `crop ${changed.length} pictures`,
    edits: [crops, { kind: 'set-light', lights }],
  };
}
