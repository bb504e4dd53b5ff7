import { checked, type Parts, type Schema } from '../../schema/schema';
import type { EditRecord } from './edit-record';
import { addLayers, type AddLayers } from './add-layers';
import { addSlides, type AddSlides } from './add-slides';
import { addSounds, type AddSounds } from './add-sounds';
import { letBe, type LetBe } from './let-be';
import { moveSlides, type MoveSlides } from './move-slides';
import { placeLayers, type PlaceLayers } from './place-layers';
import { putLayer, type PutLayer } from './put-layer';
import { putSlides, type PutSlides } from './put-slides';
import { removeLayers, type RemoveLayers } from './remove-layers';
import { removeSlides, type RemoveSlides } from './remove-slides';
import { removeSounds, type RemoveSounds } from './remove-sounds';
import { renameShow, type RenameShow } from './rename-show';
import { setBeats, type SetBeats } from './set-beats';
import { setChapters, type SetChapters } from './set-chapters';
import { setMix, type SetMix } from './set-mix';
import { setPace, type SetPace } from './set-pace';
import { setBacking, type SetBacking } from './set-backing';
import { setChannels, type SetChannels } from './set-channels';
import { setChoosers, type SetChoosers } from './set-choosers';
import { setBreaths, type SetBreaths } from './set-breaths';
import { setCaptionLook, type SetCaptionLook } from './set-caption-look';
import { setCaptions, type SetCaptions } from './set-captions';
import { setScripts, type SetScripts } from './set-scripts';
import { setClocks, type SetClocks } from './set-clocks';
import { setFocus, type SetFocus } from './set-focus';
import { setTemperament, type SetTemperament } from './set-temperament';
import { setContent, type SetContent } from './set-content';
import { setCrops, type SetCrops } from './set-crops';
import { setCues, type SetCues } from './set-cues';
import { setDefaultLength, type SetDefaultLength } from './set-default-length';
import { setEdge, type SetEdge } from './set-edge';
import { setKey, type SetKey } from './set-key';
import { setLayerProperties, type SetLayerProperties } from './set-layer-properties';
import { setLicences, type SetLicences } from './set-licences';
import { setLayers, type SetLayers } from './set-layers';
import { setLengths, type SetLengths } from './set-lengths';
import { setLight, type SetLight } from './set-light';
import { setMarks, type SetMarks } from './set-marks';
import { setMethods, type SetMethods } from './set-methods';
import { setMove, type SetMove } from './set-move';
import { setPosters, type SetPosters } from './set-posters';
import { setPlumage, type SetPlumage } from './set-plumage';
import { setRate, type SetRate } from './set-rate';
import { setShape, type SetShape } from './set-shape';
import { setSound, type SetSound } from './set-sound';
import { setTags, type SetTags } from './set-tags';
import { setTransitions, type SetTransitions } from './set-transitions';
import { setWaits, type SetWaits } from './set-waits';
import { setWatermark, type SetWatermark } from './set-watermark';
import { setWords, type SetWords } from './set-words';
import { swapFile, type SwapFile } from './swap-file';
import { together, type Together } from './together';

/** A change to a show as data: small, sent to the server as it is, and always answered by another edit that undoes it. */
export type ShowEdit =
  | AddSlides
  | RemoveSlides
  | MoveSlides
  | SetLengths
  | SetTransitions
  | SetChoosers
  | AddLayers
  | RemoveLayers
  | PlaceLayers
  | PutLayer
  | SetLayers
  | SetLayerProperties
  | SetChannels
  | SetKey
  | SetWords
  | SetMove
  | SetCrops
  | SetLight
  | SetEdge
  | SetBacking
  | SetShape
  | AddSounds
  | RemoveSounds
  | SetSound
  | SetCues
  | SetDefaultLength
  | RenameShow
  | SetMarks
  | SetClocks
  | SetFocus
  | SetTemperament
  | SetBeats
  | SetPace
  | SetMix
  | SetChapters
  | SetScripts
  | SetBreaths
  | SetCaptions
  | SetCaptionLook
  | SetWaits
  | LetBe
  | SetLicences
  | SetTags
  | SetPosters
  | SetMethods
  | SetPlumage
  | SetRate
  | SetWatermark
  | SwapFile
  | PutSlides
  | SetContent
  | Together;

type Records = { readonly [Kind in ShowEdit['kind']]: EditRecord<Extract<ShowEdit, { readonly kind: Kind }>> };

/** Every kind of edit by its name. */
export const EDIT_RECORDS: Records = {
  'add-slides': addSlides,
  'remove-slides': removeSlides,
  'move-slides': moveSlides,
  'set-lengths': setLengths,
  'set-transitions': setTransitions,
  'set-choosers': setChoosers,
  'add-layers': addLayers,
  'remove-layers': removeLayers,
  'place-layers': placeLayers,
  'put-layer': putLayer,
  'set-layers': setLayers,
  'set-layer-properties': setLayerProperties,
  'set-channels': setChannels,
  'set-key': setKey,
  'set-words': setWords,
  'set-move': setMove,
  'set-crops': setCrops,
  'set-light': setLight,
  'set-edge': setEdge,
  'set-backing': setBacking,
  'set-shape': setShape,
  'add-sounds': addSounds,
  'remove-sounds': removeSounds,
  'set-sound': setSound,
  'set-cues': setCues,
  'set-default-length': setDefaultLength,
  'rename-show': renameShow,
  'set-marks': setMarks,
  'set-clocks': setClocks,
  'set-focus': setFocus,
  'set-temperament': setTemperament,
  'set-beats': setBeats,
  'set-pace': setPace,
  'set-mix': setMix,
  'set-chapters': setChapters,
  'set-scripts': setScripts,
  'set-breaths': setBreaths,
  'set-captions': setCaptions,
  'set-caption-look': setCaptionLook,
  'set-waits': setWaits,
  'let-be': letBe,
  'set-licences': setLicences,
  'set-tags': setTags,
  'set-posters': setPosters,
  'set-methods': setMethods,
  'set-plumage': setPlumage,
  'set-rate': setRate,
  'set-watermark': setWatermark,
  'swap-file': swapFile,
  'put-slides': putSlides,
  'set-content': setContent,
  together: together(() => EDIT),
};

/** The record of an edit's kind, for edits of that kind. */
export function recordOf<Edit extends ShowEdit>(edit: Edit): EditRecord<Edit> {
  return EDIT_RECORDS[edit.kind] as unknown as EditRecord<Edit>;
}

/** What any edit may look like. */
export const EDIT: Schema = checked<ShowEdit>(
  {
    is: 'kinds',
    by: 'kind',
    kinds: Object.fromEntries(
      Object.entries(EDIT_RECORDS).map(([kind, record]): [string, Parts] => [kind, record.parts]),
    ),
  },
  (edit) => recordOf(edit).fault?.(edit) ?? null,
);
